import { facesOf, readKit } from '@heliaster/core/kit'
import type { MigrationInterface, QueryRunner } from 'typeorm'

const CHANGES = [
  `ALTER TABLE documents ADD COLUMN summary TEXT NOT NULL DEFAULT '{}', ADD COLUMN touchedAt DATETIME(3) NULL,
    ADD KEY listed (kind, deletedAt, changedAt, id), ADD KEY touched (kind, touchedAt)`,
  `UPDATE documents SET touchedAt = COALESCE(deletedAt, changedAt)`,
  `ALTER TABLE documents MODIFY touchedAt DATETIME(3) NOT NULL`,
]

/** Lists read a small summary instead of every document; what was touched since a moment is found by an index. */
export class Summaries1796000000000 implements MigrationInterface {
  readonly name = 'Summaries1796000000000'

  async up(queryRunner: QueryRunner): Promise<void> {
    for (const change of CHANGES) await queryRunner.query(change)
    const ids = (await queryRunner.query(`SELECT id FROM documents WHERE kind = 'kit'`)) as { id: string }[]
    for (const { id } of ids) {
      const [row] = (await queryRunner.query(`SELECT json FROM documents WHERE kind = 'kit' AND id = ?`, [id])) as { json: string }[]
      const read = readKit(JSON.parse(row.json))
      if (read.ok)
        await queryRunner.query(`UPDATE documents SET summary = ? WHERE kind = 'kit' AND id = ?`, [JSON.stringify(facesOf(read.value)), id])
    }
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    await queryRunner.query(`ALTER TABLE documents DROP KEY listed, DROP KEY touched, DROP COLUMN summary, DROP COLUMN touchedAt`)
  }
}
