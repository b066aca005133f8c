import type { MigrationInterface, QueryRunner } from 'typeorm';

const fixed = (columns: string): string =>
  `CREATE TRIGGER "tr_look_fixed" BEFORE UPDATE OF ${columns} ON "look" FOR EACH ROW BEGIN SELECT RAISE(ABORT, 'a look is never changed'); END`;
const COLUMNS = '"id", "sightingId", "stageId", "L", "a", "b", "said", "at"';

/** A look that is stranger than tubes, knife and reading allow counts in full once the painter has confirmed it. */
export class ConfirmedLooks1765000000000 implements MigrationInterface {
  name = 'ConfirmedLooks1765000000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "look" ADD COLUMN "confirmed" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`DROP TRIGGER "tr_look_fixed"`);
    await runner.query(fixed(`${COLUMNS}, "confirmed"`));
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TRIGGER "tr_look_fixed"`);
    await runner.query(fixed(COLUMNS));
    await runner.query(`ALTER TABLE "look" DROP COLUMN "confirmed"`);
  }
}
