// What Pick chooses among.
import { ZONES } from '@dusk/core';

/** Rows by their id, told by their name. */
export const named = (
  rows: readonly { readonly id: string; readonly name: string }[],
): { readonly value: string; readonly title: string }[] => rows.map(({ id, name }) => ({ value: id, title: name }));

/** Zones of light, and none. */
export const ZONES_OR_NONE: readonly { readonly value: string; readonly title: string }[] = [
  { value: '', title: 'no zone' },
  ...ZONES.map((zone) => ({ value: zone, title: zone })),
];
