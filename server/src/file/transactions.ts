import type { DataSource, EntityManager } from 'typeorm';

/** What is used of the driver's own connection. */
interface Connection {
  readonly inTransaction: boolean;
  readonly open: boolean;
  exec(sql: string): unknown;
  pragma(text: string): unknown;
  backup(destination: string): Promise<unknown>;
}

interface Driver {
  readonly databaseConnection: Connection;
  connect(): Promise<void>;
  disconnect(): Promise<void>;
}

const driverOf = (data: DataSource): Driver => data.driver as unknown as Driver;

/** The connection itself, for what the mapper does not do. */
export const connectionOf = (data: DataSource): Connection => driverOf(data).databaseConnection;

/**
 * Runs work as one transaction on the driver: the mapper's own counts its depth and lose count when
 * SQLite rolls back by itself, after which nothing would ever be committed again.
 * @throws whatever the work or the commit throws; the transaction is then rolled back
 */
export async function inTransaction<T>(data: DataSource, work: (db: EntityManager) => Promise<T>): Promise<T> {
  const connection = connectionOf(data);
  connection.exec('BEGIN IMMEDIATE');
  try {
    const result = await work(data.manager);
    if (!connection.inTransaction) throw new Error('The transaction ended before it was committed.');
    connection.exec('COMMIT');
    return result;
  } catch (cause) {
    if (connection.inTransaction) connection.exec('ROLLBACK');
    throw cause;
  }
}

/** Closes the connection and opens it again: after a failure nobody foresaw its state is not to be relied on. */
export async function reopen(data: DataSource): Promise<void> {
  const driver = driverOf(data);
  await driver.disconnect();
  await driver.connect();
}
