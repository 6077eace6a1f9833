import type { MigrationInterface, QueryRunner } from 'typeorm'

const TABLES = [
  `CREATE TABLE documents (
    kind VARCHAR(8) NOT NULL, id VARCHAR(64) NOT NULL, revision INT NOT NULL, json LONGTEXT NOT NULL, name VARCHAR(255) NOT NULL,
    changedAt DATETIME(3) NOT NULL, deletedAt DATETIME(3) NULL, PRIMARY KEY (kind, id)
  )`,
  `CREATE TABLE edit_batches (
    kind VARCHAR(8) NOT NULL, docId VARCHAR(64) NOT NULL, batchId VARCHAR(64) NOT NULL, revision INT NOT NULL,
    edits LONGTEXT NOT NULL, refused LONGTEXT NOT NULL, PRIMARY KEY (kind, docId, batchId), UNIQUE KEY byRevision (kind, docId, revision)
  )`,
  `CREATE TABLE snapshots (
    kind VARCHAR(8) NOT NULL, docId VARCHAR(64) NOT NULL, revision INT NOT NULL, json LONGTEXT NOT NULL, PRIMARY KEY (kind, docId, revision)
  )`,
  `CREATE TABLE audio (hash VARCHAR(64) NOT NULL PRIMARY KEY, bytes INT UNSIGNED NOT NULL, name VARCHAR(255) NOT NULL, state VARCHAR(16) NOT NULL)`,
  `CREATE TABLE audio_chunks (hash VARCHAR(64) NOT NULL, place INT NOT NULL, data MEDIUMBLOB NOT NULL, PRIMARY KEY (hash, place))`,
  `CREATE TABLE settings (name VARCHAR(64) NOT NULL PRIMARY KEY, value VARCHAR(255) NOT NULL)`,
]
const NAMES = ['documents', 'edit_batches', 'snapshots', 'audio', 'audio_chunks', 'settings']

export class Start1795000000000 implements MigrationInterface {
  readonly name = 'Start1795000000000'

  async up(queryRunner: QueryRunner): Promise<void> {
    for (const table of TABLES) await queryRunner.query(table)
  }

  async down(queryRunner: QueryRunner): Promise<void> {
    for (const name of NAMES) await queryRunner.query(`DROP TABLE ${name}`)
  }
}
