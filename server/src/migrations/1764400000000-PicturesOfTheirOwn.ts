import type { MigrationInterface, QueryRunner } from 'typeorm';

/** Pictures keep their own pixels beside copies to look at; references are seen in a way that is kept; samples may be of a value alone; a canvas has a size. */
export class PicturesOfTheirOwn1764400000000 implements MigrationInterface {
  name = 'PicturesOfTheirOwn1764400000000';

  async up(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "picture" ADD COLUMN "orientation" integer NOT NULL DEFAULT 1`);
    await runner.query(`ALTER TABLE "picture" ADD COLUMN "space" text NOT NULL DEFAULT 'srgb'`);
    await runner.query(`ALTER TABLE "picture" ADD COLUMN "colours" text NOT NULL DEFAULT ''`);
    await runner.query(
      `CREATE TABLE "picture_copy" ("pictureId" text NOT NULL, "kind" text NOT NULL, "mime" text NOT NULL, "bytes" blob NOT NULL, CONSTRAINT "fk_picture_copy_picture" FOREIGN KEY ("pictureId") REFERENCES "picture" ("id") ON DELETE CASCADE ON UPDATE NO ACTION, CONSTRAINT "pk_picture_copy" PRIMARY KEY ("pictureId", "kind"))`,
    );
    await runner.query(`ALTER TABLE "reference" ADD COLUMN "width" integer NOT NULL DEFAULT 0`);
    await runner.query(`ALTER TABLE "reference" ADD COLUMN "height" integer NOT NULL DEFAULT 0`);
    await runner.query(`ALTER TABLE "reference" ADD COLUMN "view" text NOT NULL DEFAULT '{}'`);
    await runner.query(`ALTER TABLE "reference" ADD COLUMN "source" text NOT NULL DEFAULT ''`);
    await runner.query(`ALTER TABLE "reference" ADD COLUMN "passing" text NOT NULL DEFAULT 'ask'`);
    await runner.query(`ALTER TABLE "sample" ADD COLUMN "valueOnly" boolean NOT NULL DEFAULT (0)`);
    await runner.query(`ALTER TABLE "painting" ADD COLUMN "canvas" text`);
  }

  async down(runner: QueryRunner): Promise<void> {
    await runner.query(`ALTER TABLE "painting" DROP COLUMN "canvas"`);
    await runner.query(`ALTER TABLE "sample" DROP COLUMN "valueOnly"`);
    for (const column of ['passing', 'source', 'view', 'height', 'width'])
      await runner.query(`ALTER TABLE "reference" DROP COLUMN "${column}"`);
    await runner.query(`DROP TABLE "picture_copy"`);
    for (const column of ['colours', 'space', 'orientation']) await runner.query(`ALTER TABLE "picture" DROP COLUMN "${column}"`);
  }
}
