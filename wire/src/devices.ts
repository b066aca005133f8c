import { Id, Note, Version } from './fields.ts';

/** A name for the browser or program that changes come from. */
export class DeviceChange {
  @Id('A device')
  id!: string;

  @Version()
  version!: number;

  @Note('The name of a device', 60)
  name!: string;
}

export interface DeviceDto {
  readonly id: string;
  readonly version: number;
  /** Empty until somebody names it. */
  readonly name: string;
  /** When its first change came, and its newest. */
  readonly since: string;
  readonly seen: string;
}
