import type { Needs, SettingsDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Settings } from '../entities/index.ts';
import { stale } from '../problems.ts';
import type { Doing } from './work.ts';
import { changed, given } from './rows.ts';

const ONLY = 1;

const dto = ({ version, valueScale, warmBlue, surround, room, knife, dulling, stepLeast, stepMost, copiesFolder, copiesKept }: Settings): SettingsDto => ({
  id: String(ONLY),
  version,
  valueScale,
  warmBlue,
  surround,
  room,
  knife,
  dulling,
  stepLeast,
  stepMost,
  copiesFolder,
  copiesKept,
});

export const settingsRows = async (db: EntityManager): Promise<SettingsDto[]> => [dto(await db.findOneByOrFail(Settings, { id: ONLY }))];

/** What a dose of this painter may be off by, as a share of itself. */
export const knifeNow = async (db: EntityManager): Promise<number> => (await db.findOneByOrFail(Settings, { id: ONLY })).knife;

export const changeSettings: Doing<Needs<'settings.change'>> = async ({ db, touch }, { version, ...change }) => {
  const [settings] = (await settingsRows(db)) as [SettingsDto];
  if (settings.version !== version) throw stale('setting', version, settings);
  const news = given(change);
  await db.update(Settings, { id: ONLY }, { ...news, version: version + 1 });
  touch('settings', String(ONLY));
  return [{ do: 'settings.change', version: version + 1, ...changed(news, settings) }];
};
