// Which browsers and programs changes came from.
import type { DeviceDto, Needs } from '@dusk/wire';
import { isUUID } from 'class-validator';
import { Column, Entity, In, PrimaryColumn, type EntityManager } from 'typeorm';
import { notFound, stale } from '../refusing/problems.ts';
import type { Doing } from '../change/work.ts';

/** A browser or program that changes came from, by the name it gave itself. */
@Entity({ name: 'device' })
export class Device {
  @PrimaryColumn('text', { primaryKeyConstraintName: 'pk_device' })
  id!: string;

  @Column('integer')
  version!: number;

  @Column('text', { default: '' })
  name!: string;

  /** What it is let in by, hashed; null where it needs none, being of this machine. */
  @Column('text', { nullable: true })
  key!: string | null;

  @Column('text')
  since!: string;

  @Column('text')
  seen!: string;
}

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
