import type { MigrationInterface, QueryRunner } from 'typeorm';

const ADDED = [
  ['reading', 'spectrum'],
  ['tube_state', 'doubt'],
] as const;

/** A reading may hold a spectrum, and a state says what is still open of a tube that was taught. */
export class TaughtTubes1765700000000 implements MigrationInterface {
  name = 'TaughtTubes1765700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "reading" ADD COLUMN "spectrum" text`);
    await runner.query(`ALTER TABLE "tube_state" ADD COLUMN "doubt" text`);
    for (const [table, column] of ADDED)
      await runner.query(
        `CREATE TRIGGER "tr_${table}_${column}" BEFORE UPDATE OF "${column}" ON "${table}" FOR EACH ROW BEGIN SELECT RAISE(ABORT, 'a ${table} is never changed'); END`,
      );
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const [table, column] of ADDED) await runner.query(`DROP TRIGGER "tr_${table}_${column}"`);
    await runner.query(`ALTER TABLE "tube_state" DROP COLUMN "doubt"`);
    await runner.query(`ALTER TABLE "reading" DROP COLUMN "spectrum"`);
  }
}
