import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Piles say what they are for and stand in strings and layers; a painting has a layer that is painted and a ceiling of chroma; steps of strings have their bounds. */
export class Kin1764500000000 implements MigrationInterface {
  name = 'Kin1764500000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "pile" ADD COLUMN "purpose" text NOT NULL DEFAULT '{}'`);
    await runner.query(`ALTER TABLE "pile" ADD COLUMN "layer" integer NOT NULL DEFAULT 1`);
    await runner.query(`ALTER TABLE "pile" ADD COLUMN "note" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "pile" ADD COLUMN "string" text`);
    await runner.query(`ALTER TABLE "painting" ADD COLUMN "layer" integer NOT NULL DEFAULT 1`);
    await runner.query(`ALTER TABLE "painting" ADD COLUMN "ceiling" real`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "stepLeast" real NOT NULL DEFAULT 1`);
    await runner.query(`ALTER TABLE "settings" ADD COLUMN "stepMost" real NOT NULL DEFAULT 12`);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const column of ['stepMost', 'stepLeast']) await runner.query(`ALTER TABLE "settings" DROP COLUMN "${column}"`);
    for (const column of ['ceiling', 'layer']) await runner.query(`ALTER TABLE "painting" DROP COLUMN "${column}"`);
    for (const column of ['string', 'note', 'layer', 'purpose']) await runner.query(`ALTER TABLE "pile" DROP COLUMN "${column}"`);
  }
}
