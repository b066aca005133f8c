import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = ['card', 'card_set', 'bringing'] as const;

/** The file itself sees that versions of cards, sets and files of cards go up by one, as of all other rows that carry one. */
export class VersionsOfCards1765200000000 implements MigrationInterface {
  name = 'VersionsOfCards1765200000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const table of TABLES)
      await runner.query(
        `CREATE TRIGGER "tr_${table}_version" BEFORE UPDATE ON "${table}" FOR EACH ROW WHEN NEW."version" <> OLD."version" + 1 BEGIN SELECT RAISE(ABORT, 'the version of a ${table} goes up by one'); END`,
      );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of TABLES) await runner.query(`DROP TRIGGER "tr_${table}_version"`);
  }
}
