import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = ['documents', 'edit_batches', 'snapshots']

/** Kinds of documents have names of up to 16 letters. */
export class Kinds1797000000000 implements MigrationInterface {
  readonly name = 'Kinds1797000000000'

  async up(queryRunner: QueryRunner): Promise<void> {
    for (const table of TABLES) await queryRunner.query(`ALTER TABLE ${table} MODIFY kind VARCHAR(16) NOT NULL`)
  }

  /** Kinds whose names are longer go with their documents: the version before knows nothing of them. */
  async down(queryRunner: QueryRunner): Promise<void> {
    for (const table of TABLES) {
      await queryRunner.query(`DELETE FROM ${table} WHERE CHAR_LENGTH(kind) > 8`)
      await queryRunner.query(`ALTER TABLE ${table} MODIFY kind VARCHAR(8) NOT NULL`)
    }
  }
}
