import type { MigrationInterface, QueryRunner } from 'typeorm';
import { CARD_TRIGGERS } from './1764600000000-Cards.ts';

/** Files of cards that were brought in never change; the step of bringing one stands as it was. */
export const FILE_TRIGGERS = [
  `CREATE TRIGGER "tr_card_file_fixed" BEFORE UPDATE ON "card_file" BEGIN SELECT RAISE(ABORT, 'a file of cards never changes'); END`,
  `CREATE TRIGGER "tr_bringing_fixed" BEFORE UPDATE OF "fileId", "name", "cards", "besides", "createdAt" ON "bringing" BEGIN SELECT RAISE(ABORT, 'what was brought in never changes'); END`,
];

/** Cards are found among many, kept in sets, carried in files and brought in; a pile says which card it is mixed by. */
export class CardsFound1764700000000 implements MigrationInterface {
  name = 'CardsFound1764700000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(
      `CREATE TABLE "card_file" ("id" text NOT NULL, "name" text NOT NULL, "bytes" blob NOT NULL, "createdAt" text NOT NULL, CONSTRAINT "pk_card_file" PRIMARY KEY ("id"))`,
    );
    await runner.query(
      `CREATE TABLE "bringing" ("id" text NOT NULL, "version" integer NOT NULL, "fileId" text NOT NULL, "name" text NOT NULL, "cards" integer NOT NULL, "besides" text NOT NULL, "createdAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_bringing_file" FOREIGN KEY ("fileId") REFERENCES "card_file" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "pk_bringing" PRIMARY KEY ("id"))`,
    );
    await runner.query(`CREATE INDEX "ix_bringing_file" ON "bringing" ("fileId")`);
    await runner.query(
      `CREATE TABLE "card_new" ("id" text NOT NULL, "version" integer NOT NULL, "name" text NOT NULL, "note" text NOT NULL DEFAULT (''), "pileId" text, "body" text NOT NULL, "value" real NOT NULL, "dab" text, "stands" text NOT NULL DEFAULT ('{}'), "bringingId" text, "createdAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_card_pile" FOREIGN KEY ("pileId") REFERENCES "pile" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_card_bringing" FOREIGN KEY ("bringingId") REFERENCES "bringing" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "pk_card" PRIMARY KEY ("id"))`,
    );
    await runner.query(
      `INSERT INTO "card_new" ("id", "version", "name", "note", "pileId", "body", "value", "createdAt", "deletedAt") SELECT "id", "version", "name", "note", "pileId", "body", "value", "createdAt", "deletedAt" FROM "card"`,
    );
    await runner.query(`DROP TABLE "card"`);
    await runner.query(`ALTER TABLE "card_new" RENAME TO "card"`);
    await runner.query(`CREATE INDEX "ix_card_pile" ON "card" ("pileId")`);
    await runner.query(`CREATE INDEX "ix_card_value" ON "card" ("value")`);
    await runner.query(`CREATE INDEX "ix_card_bringing" ON "card" ("bringingId")`);
    await runner.query(
      `CREATE TABLE "card_found" ("cardId" text NOT NULL, "value" real NOT NULL, "L" real NOT NULL, "a" real NOT NULL, "b" real NOT NULL, "warmRed" real NOT NULL, "warmGreen" real NOT NULL, "words" text NOT NULL, "pigments" text NOT NULL, "thing" text NOT NULL, "zone" text NOT NULL, "painting" text NOT NULL, "createdAt" text NOT NULL, "away" boolean NOT NULL, CONSTRAINT "fk_card_found_card" FOREIGN KEY ("cardId") REFERENCES "card" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "pk_card_found" PRIMARY KEY ("cardId"))`,
    );
    await runner.query(
      `CREATE TABLE "card_set" ("id" text NOT NULL, "version" integer NOT NULL, "name" text NOT NULL, "kind" text NOT NULL, "note" text NOT NULL DEFAULT (''), "bringingId" text, "createdAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_card_set_bringing" FOREIGN KEY ("bringingId") REFERENCES "bringing" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "pk_card_set" PRIMARY KEY ("id"))`,
    );
    await runner.query(`CREATE INDEX "ix_card_set_bringing" ON "card_set" ("bringingId")`);
    await runner.query(
      `CREATE TABLE "card_place" ("setId" text NOT NULL, "cardId" text NOT NULL, "position" integer NOT NULL, CONSTRAINT "fk_card_place_set" FOREIGN KEY ("setId") REFERENCES "card_set" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "fk_card_place_card" FOREIGN KEY ("cardId") REFERENCES "card" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "pk_card_place" PRIMARY KEY ("setId", "cardId"))`,
    );
    await runner.query(`CREATE INDEX "ix_card_place_card" ON "card_place" ("cardId")`);
    await runner.query(`ALTER TABLE "pile" ADD COLUMN "cardId" text`);
    await runner.query(`CREATE INDEX "ix_pile_card" ON "pile" ("cardId")`);
    // A table that is built anew has lost its triggers.
    for (const trigger of [...CARD_TRIGGERS, ...FILE_TRIGGERS]) await runner.query(trigger);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of ['card_place', 'card_set', 'card_found', 'card', 'bringing', 'card_file'])
      await runner.query(`DROP TABLE "${table}"`);
  }
}
