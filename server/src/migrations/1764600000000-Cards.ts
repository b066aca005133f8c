import type { MigrationInterface, QueryRunner } from 'typeorm';

/** What holds of cards always. */
export const CARD_TRIGGERS = [
  `CREATE TRIGGER "tr_card_fixed" BEFORE UPDATE OF "body", "value", "pileId", "createdAt" ON "card" BEGIN SELECT RAISE(ABORT, 'what a card holds never changes'); END`,
];

/** Cards: mixtures that stand for themselves. What they hold is never written again. */
export class Cards1764600000000 implements MigrationInterface {
  name = 'Cards1764600000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "card" ("id" text NOT NULL, "version" integer NOT NULL, "name" text NOT NULL, "note" text NOT NULL DEFAULT (''), "pileId" text, "body" text NOT NULL, "value" real NOT NULL, "createdAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_card_pile" FOREIGN KEY ("pileId") REFERENCES "pile" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "pk_card" PRIMARY KEY ("id"))`,
    );
    await runner.query(`CREATE INDEX "ix_card_pile" ON "card" ("pileId")`);
    await runner.query(`CREATE INDEX "ix_card_value" ON "card" ("value")`);
    for (const trigger of CARD_TRIGGERS) await runner.query(trigger);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`DROP TABLE "card"`);
  }
}
