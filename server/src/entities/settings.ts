import type { Dulling, Measure, ValueScale, WarmBlue } from '@dusk/core';
import type { Room, Surround } from '@dusk/wire';
import { Column, Entity, PrimaryColumn } from 'typeorm';

/** How this painter thinks. One row. */
@Entity({ name: 'settings' })
export class Settings {
  @PrimaryColumn('integer', { primaryKeyConstraintName: 'pk_settings' })
  id!: number;

  @Column('integer')
  version!: number;

  @Column('text')
  valueScale!: ValueScale;

  @Column('text')
  warmBlue!: WarmBlue;

  @Column('text')
  surround!: Surround;

  @Column('text')
  room!: Room;

  /** Half-width of what a dose may be off, as a share of itself. */
  @Column('real', { default: 0.1 })
  knife!: number;

  @Column('text', { default: 'any' })
  dulling!: Dulling;

  /** How recipes are told, and how large a pile is unless it is said. */
  @Column('text', { default: 'parts' })
  measure!: Measure;

  @Column('real', { default: 4 })
  amountMl!: number;

  /** Steps of strings, ΔE00. */
  @Column('real', { default: 1 })
  stepLeast!: number;

  @Column('real', { default: 12 })
  stepMost!: number;

  /** Folder of copies; empty: beside the studio. */
  @Column('text', { default: '' })
  copiesFolder!: string;

  @Column('integer', { default: 30 })
  copiesKept!: number;

  /** How warm the room is in which paint dries, °C. */
  @Column('real', { nullable: true })
  temperatureC!: number | null;

  /** What is seen to before a painting is finished. */
  @Column('simple-json', { default: '[]' })
  finishing!: readonly string[];

  /** Tells this studio from every other; a copy of it has the same. */
  @Column('text', { default: '' })
  studioId!: string;
}
