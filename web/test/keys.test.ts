import { expect } from 'chai';
import { kinKeys, nudgeKeys } from '../src/pile/keysOfPile.ts';

const pressed = (key: string, shiftKey = false): KeyboardEvent => ({ key, shiftKey }) as KeyboardEvent;

describe('the keys of a pile', () => {
  it('nudge it by one, with Shift by five, as its arrows say; plus is where it is on any keyboard', () => {
    const said: [string, number][] = [];
    const keys = nudgeKeys((by, steps) => void said.push([by, steps]));
    const press = (key: string, shift = false): void => keys.find((one) => one.key === key)!.run(pressed(key, shift));
    press('ArrowUp');
    press('ArrowDown', true);
    press('ArrowLeft');
    press('+');
    press('=');
    press('-');
    expect(said).to.deep.equal([
      ['value', 1],
      ['value', -5],
      ['hue', -1],
      ['chroma', 1],
      ['chroma', 1],
      ['chroma', -1],
    ]);
    expect(keys.every(({ repeats }) => repeats)).to.equal(true);
  });

  it('step to the next pile warmer to the right, in its shadow and off it, by three with Shift', () => {
    const said: [string, number][] = [];
    const keys = kinKeys((by, way) => void said.push([by, way]));
    const press = (key: string, shift = false): void => keys.find((one) => one.key === key)!.run(pressed(key, shift));
    press('ArrowRight');
    press('ArrowLeft', true);
    press('i');
    press('f');
    expect(said).to.deep.equal([
      ['temperature', 1],
      ['temperature', -3],
      ['shadow', 1],
      ['off', 1],
    ]);
  });
});
