import type { Needs, SettingsDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Settings } from '../entities/index.ts';
import { dirname } from 'node:path';
import { copiesFolder, markFolder, rememberFolder, troubleWith } from '../file/copies.ts';
import { stale, unfit } from '../refusing/problems.ts';
import type { Doing } from '../change/work.ts';
import { changed, given } from '../change/rows.ts';

const ONLY = 1;
/** The folder that the open studio lies in. */
const studioFolder = ({ connection }: EntityManager): string => dirname(String(connection.options.database));

const dto = ({
  version,
  valueScale,
  warmBlue,
  surround,
  room,
  knife,
  dulling,
  measure,
  amountMl,
  stepLeast,
  stepMost,
  copiesFolder,
  copiesKept,
  temperatureC,
  finishing,
}: Settings): SettingsDto => ({
  id: String(ONLY),
  version,
  valueScale,
  warmBlue,
  surround,
  room,
  knife,
  dulling,
  measure,
  amountMl,
  stepLeast,
  stepMost,
  copiesFolder,
  copiesKept,
  temperatureC,
  finishing,
});

export const settingsRows = async (db: EntityManager): Promise<SettingsDto[]> => [dto(await db.findOneByOrFail(Settings, { id: ONLY }))];

/** What tells this studio from every other. */
export const studioIdOf = async (db: EntityManager): Promise<string> => (await db.findOneByOrFail(Settings, { id: ONLY })).studioId;

/** What a dose of this painter may be off by, as a share of itself. */
export const knifeNow = async (db: EntityManager): Promise<number> => (await db.findOneByOrFail(Settings, { id: ONLY })).knife;

export const changeSettings: Doing<Needs<'settings.change'>> = async ({ db, touch }, { version, ...change }) => {
  const [settings] = (await settingsRows(db)) as [SettingsDto];
  if (settings.version !== version) throw stale('setting', version, settings);
  const news = given(change);
  if ((news.stepLeast ?? settings.stepLeast) >= (news.stepMost ?? settings.stepMost))
    throw unfit('Nothing between', 'stepLeast', 'The least step of a string is smaller than the largest.');
  if (news.copiesFolder !== undefined) {
    const where = copiesFolder(studioFolder(db), news.copiesFolder);
    const trouble = troubleWith(where);
    if (trouble) throw unfit('No folder for copies', 'copiesFolder', trouble);
    if (news.copiesFolder !== '') markFolder(where, await studioIdOf(db));
    rememberFolder(studioFolder(db), where);
  }
  await db.update(Settings, { id: ONLY }, { ...news, version: version + 1 });
  touch('settings', String(ONLY));
  return [{ do: 'settings.change', version: version + 1, ...changed(news, settings) }];
};
