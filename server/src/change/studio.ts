import type { DataSource, EntityManager } from 'typeorm';
import type { Clock } from '../file/clock.ts';
import type { StudioSeen } from '../file/look.ts';
import type { Hearing } from './hearing.ts';

/** Work that is gone on with once what was asked is answered. */
export interface Later {
  readonly goOn: () => void;
  /** Waits until all is done. */
  readonly settled: () => Promise<void>;
  readonly close: () => Promise<void>;
}

/** An open studio: one SQLite file. */
export interface Studio {
  readonly folder: string;
  readonly file: string;
  readonly data: DataSource;
  /** Reads, after the changes before it, so that no half-made change is seen. */
  readonly look: <T>(work: (db: EntityManager) => Promise<T>) => Promise<T>;
  /** Runs a change as one transaction, after those before it, and answers once it is durable. */
  readonly change: <T>(work: (db: EntityManager) => Promise<T>) => Promise<T>;
  /** What time it is, UTC ISO; tests set it forward. */
  readonly now: Clock;
  /** What tells it from every other. */
  readonly id: string;
  /** Whether its disk had no room when it was opened: it is read, and keeps nothing new until there is. */
  readonly isFull: boolean;
  /** Where open windows hear of changes. */
  readonly hearing: Hearing;
  /** What reckons what piles teach where that takes long. */
  readonly folding: Later;
  /** Copies all of it into one file while it is in use. */
  readonly copy: (to: string) => Promise<StudioSeen>;
  /** @returns whether all of it is in the one file; where its disk is full the journal stays beside it */
  readonly close: () => Promise<boolean>;
}
