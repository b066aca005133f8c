import { expect } from 'chai';
import { hexToLab } from '@dusk/core';
import { DARK, LIGHT } from '../src/frame/theme/rooms.ts';

describe('the two rooms', () => {
  for (const [room, colours] of Object.entries({ light: LIGHT, dark: DARK }))
    it(`have no hue where they are large: ${room}`, () => {
      for (const name of ['background', 'surface', 'surface-variant'] as const) {
        const [, a, b] = hexToLab(colours[name]);
        expect(Math.hypot(a, b), name).to.be.below(0.5);
      }
    });
});
