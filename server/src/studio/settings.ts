import type { SettingsChange, SettingsDto } from '@dusk/wire';
import type { EntityManager } from 'typeorm';
import { Settings } from '../entities/index.ts';
import { stale } from '../problems.ts';

const row = (db: EntityManager): Promise<Settings> => db.findOneByOrFail(Settings, { id: 1 });

const dto = ({ version, valueScale, warmBlue, surround, room }: Settings): SettingsDto => ({ version, valueScale, warmBlue, surround, room });

export const readSettings = async (db: EntityManager): Promise<SettingsDto> => dto(await row(db));

export async function changeSettings(db: EntityManager, { version, ...change }: SettingsChange): Promise<SettingsDto> {
  const settings = await row(db);
  if (settings.version !== version) throw stale('setting', version, dto(settings));
  const given = Object.fromEntries(Object.entries(change).filter(([, v]) => v !== undefined));
  return dto(await db.save(Object.assign(settings, given, { version: version + 1 })));
}
