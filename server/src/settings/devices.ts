// Which browsers and programs changes came from.
import type { DeviceDto, Needs } from '@dusk/wire';
import { isUUID } from 'class-validator';
import { In, type EntityManager } from 'typeorm';
import { Device } from '../entities/index.ts';
import { notFound, stale } from '../refusing/problems.ts';
import type { Doing } from '../change/work.ts';

const deviceDto = ({ key: _, ...device }: Device): DeviceDto => device;

export const deviceRows = async (db: EntityManager, ids?: readonly string[]): Promise<DeviceDto[]> =>
  (await db.find(Device, { ...(ids && { where: { id: In([...ids]) } }), order: { since: 'ASC' } })).map(deviceDto);

/** Keeps when a device was heard of; what names itself by no id of its own, as another program of the studio's, is not kept. */
export async function heardOf(db: EntityManager, id: string, at: string): Promise<void> {
  if (!isUUID(id)) return;
  const { affected } = await db.update(Device, { id }, { seen: at });
  if (!affected) await db.insert(Device, { id, version: 1, name: '', key: null, since: at, seen: at });
}

export const changeDevice: Doing<Needs<'device.change'>> = async ({ db, touch }, { id, version, name }) => {
  const before = await db.findOneBy(Device, { id });
  if (!before) throw notFound('device');
  if (before.version !== version) throw stale('device', version, deviceDto(before));
  await db.update(Device, { id }, { name, version: version + 1 });
  touch('devices', id);
  return [{ do: 'device.change', id, version: version + 1, name: before.name }];
};
