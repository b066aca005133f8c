import { rmSync } from 'node:fs';
import { join, dirname } from 'node:path';
import Database from 'better-sqlite3';
import type { DataSource } from 'typeorm';

/** Where the studio is laid beside before its schema changes, named for the schema it had. */
const copyBeside = (file: string, schema: string): string => join(dirname(file), `studio before ${schema}.sqlite`);

/** A checked copy of the studio, made by SQLite itself while the file is in use. */
async function layBeside(data: DataSource, copy: string): Promise<void> {
  rmSync(copy, { force: true });
  await data.query(`VACUUM INTO ?`, [copy]);
  const opened = new Database(copy, { readonly: true });
  try {
    const [check] = opened.pragma('integrity_check') as { integrity_check: string }[];
    if (check?.integrity_check !== 'ok')
      throw new Error(`The copy of the studio in ${copy} is damaged (${check?.integrity_check}); the studio was left as it is.`);
  } finally {
    opened.close();
  }
}

/**
 * Brings the schema up to date. A studio that holds something is first laid beside as a checked copy;
 * afterwards every reference is seen to lead somewhere.
 * @throws Error when a copy cannot be made, or something would refer to nothing
 */
export async function migrate(data: DataSource, file: string, isNew = false): Promise<void> {
  if (!(await data.showMigrations())) return;
  const done = isNew ? [] : ((await data.query(`SELECT name FROM sqlite_master WHERE name = 'migration'`)) as unknown[]);
  if (done.length > 0) {
    const pending = data.migrations.find((m) => m.name !== 'FirstLight1700000000000');
    await layBeside(data, copyBeside(file, pending?.name?.replace(/\d+$/, '') ?? 'migration'));
  }
  await data.runMigrations({ transaction: 'each' });
  const astray = (await data.query('PRAGMA foreign_key_check')) as { table: string }[];
  if (astray.length > 0)
    throw new Error(
      `The studio's schema was brought up to date, but ${astray.length} rows of ${astray[0]!.table} refer to nothing. Use the copy beside ${file}.`,
    );
}
