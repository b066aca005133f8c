import type { MigrationInterface, QueryRunner } from 'typeorm';

/** On a palette darks may be mixed although a black lies there, and a tube may lie there for one sitting. */
export class DarksAndGuests1765800000000 implements MigrationInterface {
  name = 'DarksAndGuests1765800000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "palette" ADD COLUMN "mixedDarks" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`ALTER TABLE "palette" ADD COLUMN "guestIds" text NOT NULL DEFAULT ('[]')`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "palette" DROP COLUMN "guestIds"`);
    await runner.query(`ALTER TABLE "palette" DROP COLUMN "mixedDarks"`);
  }
}
