import type { MigrationInterface, QueryRunner } from 'typeorm';

const TABLES = [
  `CREATE TABLE "tube" ("id" text PRIMARY KEY NOT NULL, "name" text NOT NULL, "maker" text NOT NULL, "pigment" text NOT NULL, "nozzleMm" real NOT NULL, "createdAt" text NOT NULL)`,
  `CREATE INDEX "ix_tube_pigment" ON "tube" ("pigment")`,
  `CREATE TABLE "tube_state" ("id" text PRIMARY KEY NOT NULL, "tubeId" text NOT NULL, "basis" text NOT NULL, "source" text NOT NULL, "K" text NOT NULL, "S" text NOT NULL, "createdAt" text NOT NULL, CONSTRAINT "fk_tube_state_tube" FOREIGN KEY ("tubeId") REFERENCES "tube" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_tube_state_tube" ON "tube_state" ("tubeId")`,
  `CREATE TABLE "palette" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "name" text NOT NULL, "createdAt" text NOT NULL, "updatedAt" text NOT NULL, "deletedAt" text)`,
  `CREATE TABLE "palette_tube" ("paletteId" text NOT NULL, "tubeId" text NOT NULL, "position" integer NOT NULL, CONSTRAINT "fk_palette_tube_palette" FOREIGN KEY ("paletteId") REFERENCES "palette" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "fk_palette_tube_tube" FOREIGN KEY ("tubeId") REFERENCES "tube" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, PRIMARY KEY ("paletteId", "tubeId"))`,
  `CREATE INDEX "ix_palette_tube_tube" ON "palette_tube" ("tubeId")`,
  `CREATE TABLE "painting" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "title" text NOT NULL, "paletteId" text NOT NULL, "ground" text NOT NULL, "createdAt" text NOT NULL, "updatedAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_painting_palette" FOREIGN KEY ("paletteId") REFERENCES "palette" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_painting_palette" ON "painting" ("paletteId")`,
  `CREATE TABLE "picture" ("id" text PRIMARY KEY NOT NULL, "mime" text NOT NULL, "width" integer NOT NULL, "height" integer NOT NULL, "createdAt" text NOT NULL)`,
  `CREATE TABLE "picture_bytes" ("pictureId" text PRIMARY KEY NOT NULL, "bytes" blob NOT NULL, CONSTRAINT "fk_picture_bytes_picture" FOREIGN KEY ("pictureId") REFERENCES "picture" ("id") ON DELETE CASCADE ON UPDATE NO ACTION)`,
  `CREATE TABLE "reference" ("id" text PRIMARY KEY NOT NULL, "paintingId" text NOT NULL, "pictureId" text NOT NULL, "name" text NOT NULL, "createdAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_reference_painting" FOREIGN KEY ("paintingId") REFERENCES "painting" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "fk_reference_picture" FOREIGN KEY ("pictureId") REFERENCES "picture" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_reference_painting" ON "reference" ("paintingId")`,
  `CREATE INDEX "ix_reference_picture" ON "reference" ("pictureId")`,
  `CREATE TABLE "pile" ("id" text PRIMARY KEY NOT NULL, "version" integer NOT NULL, "paintingId" text NOT NULL, "name" text NOT NULL, "amountMl" real NOT NULL, "targetL" real, "targetA" real, "targetB" real, "sampledReferenceId" text, "sampledX" real, "sampledY" real, "sampledRadius" real, "predictedL" real NOT NULL, "predictedA" real NOT NULL, "predictedB" real NOT NULL, "value" real NOT NULL, "temperature" real NOT NULL, "deltaE00" real, "steadiness" real NOT NULL, "basis" text NOT NULL, "createdAt" text NOT NULL, "updatedAt" text NOT NULL, "deletedAt" text, CONSTRAINT "fk_pile_painting" FOREIGN KEY ("paintingId") REFERENCES "painting" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "fk_pile_reference" FOREIGN KEY ("sampledReferenceId") REFERENCES "reference" ("id") ON DELETE SET NULL ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_pile_painting" ON "pile" ("paintingId")`,
  `CREATE INDEX "ix_pile_sampled_reference" ON "pile" ("sampledReferenceId")`,
  `CREATE TABLE "pile_measure" ("id" text PRIMARY KEY NOT NULL, "pileId" text NOT NULL, "position" integer NOT NULL, "parts" real NOT NULL, "tubeId" text, "stateId" text, "letdownId" text, CONSTRAINT "fk_pile_measure_pile" FOREIGN KEY ("pileId") REFERENCES "pile" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "fk_pile_measure_tube" FOREIGN KEY ("tubeId") REFERENCES "tube" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_pile_measure_state" FOREIGN KEY ("stateId") REFERENCES "tube_state" ("id") ON DELETE RESTRICT ON UPDATE NO ACTION, CONSTRAINT "fk_pile_measure_letdown" FOREIGN KEY ("letdownId") REFERENCES "pile_measure" ("id") ON DELETE CASCADE ON UPDATE NO ACTION)`,
  `CREATE INDEX "ix_pile_measure_pile" ON "pile_measure" ("pileId")`,
  `CREATE INDEX "ix_pile_measure_tube" ON "pile_measure" ("tubeId")`,
  `CREATE INDEX "ix_pile_measure_state" ON "pile_measure" ("stateId")`,
  `CREATE INDEX "ix_pile_measure_letdown" ON "pile_measure" ("letdownId")`,
  `CREATE TABLE "settings" ("id" integer PRIMARY KEY NOT NULL, "version" integer NOT NULL, "valueScale" text NOT NULL, "warmBlue" text NOT NULL, "surround" text NOT NULL, "room" text NOT NULL)`,
];

/** Tubes and their states, palettes, paintings with pictures, piles, settings. */
export class FirstLight1700000000000 implements MigrationInterface {
  name = 'FirstLight1700000000000';

  async up(runner: QueryRunner): Promise<void> {
    for (const statement of TABLES) await runner.query(statement);
  }

  async down(runner: QueryRunner): Promise<void> {
    for (const table of [
      'settings',
      'pile_measure',
      'pile',
      'reference',
      'picture_bytes',
      'picture',
      'painting',
      'palette_tube',
      'palette',
      'tube_state',
      'tube',
    ])
      await runner.query(`DROP TABLE "${table}"`);
  }
}
