import type { MigrationInterface, QueryRunner } from 'typeorm';

/**
 * A painting's ground may be made of a tube, its paint has a usual way of being laid, and its day is planned in an order;
 * only the values of its pictures may count; of a palette's whites one may be for the lights.
 */
export class WhereItLands1765500000000 implements MigrationInterface {
  name = 'WhereItLands1765500000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const column of ['groundOf', 'habit', 'day']) await runner.query(`ALTER TABLE "painting" ADD COLUMN "${column}" text`);
    await runner.query(`ALTER TABLE "painting" ADD COLUMN "valueOnly" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`ALTER TABLE "palette" ADD COLUMN "lightsWhiteId" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "palette" DROP COLUMN "lightsWhiteId"`);
    await runner.query(`ALTER TABLE "painting" DROP COLUMN "valueOnly"`);
    for (const column of ['day', 'habit', 'groundOf']) await runner.query(`ALTER TABLE "painting" DROP COLUMN "${column}"`);
  }
}
