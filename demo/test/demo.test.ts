import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { CATALOGUE, deltaE00, readArea, valueRange } from '@dusk/core';
import { openStudio, pilesOf } from '@dusk/server';
import { labOfDto } from '@dusk/wire';
import sharp from 'sharp';
import { testClock } from '../../server/test/clock.ts';
import { fillStudio, SAMPLE_PAINTINGS, SAMPLE_TUBES } from '../src/index.ts';

describe('the sample studio', () => {
  it('is laid out once, in a studio where nobody has worked', async () => {
    const folder = mkdtempSync(join(tmpdir(), 'dusk-demo-'));
    const studio = await openStudio(folder, testClock);
    expect(await fillStudio(studio)).to.equal(true);
    expect(await fillStudio(studio)).to.equal(false);
    const paintings = (await studio.look((db) => db.query('SELECT id, title FROM painting'))) as { id: string; title: string }[];
    expect(paintings.map((p) => p.title)).to.have.members(SAMPLE_PAINTINGS.map((p) => p.title));
    for (const { id, title } of paintings) {
      const piles = await pilesOf(studio, id);
      const sample = SAMPLE_PAINTINGS.find((p) => p.title === title)!;
      expect(piles.map((p) => p.name)).to.include.members(sample.piles.map((p) => p.name));
    }
    const lamp = await pilesOf(studio, paintings.find((p) => p.title.startsWith('Oil can'))!.id);
    const bench = lamp.find((p) => p.name === 'bench in the light')!;
    expect(bench.stages.map((s) => s.kind)).to.deep.equal(['mixed', 'added']);
    const off = bench.stages.map((s) => deltaE00(labOfDto(bench.target!.lab), labOfDto(s.looks[0]!.lab)));
    expect(off[1]!, 'the correction brought it nearer').to.be.below(off[0]!);
    expect(lamp.find((p) => p.name === 'glaze, halftone')!.there).to.equal(0);
    const cards = await studio.look((db) => db.query<{ name: string }[]>('SELECT "name" FROM "card"'));
    expect(cards.map(({ name }) => name)).to.include.members(['copper, body', 'wall near the lamp']);
    await studio.close();
    rmSync(folder, { recursive: true, force: true });
  });

  it('has palettes of tubes it holds', () => {
    const held = new Set(SAMPLE_TUBES.map((t) => t.pigment));
    for (const { palette } of SAMPLE_PAINTINGS)
      for (const pigment of palette.pigments) expect(held.has(pigment) && CATALOGUE.has(pigment), pigment).to.equal(true);
    expect(SAMPLE_PAINTINGS.map((p) => p.palette.pigments.length)).to.deep.equal([6, 7]);
  });

  it('has pictures like photographs: a wide range of values and no flat shapes', async () => {
    for (const { picture } of SAMPLE_PAINTINGS) {
      const bytes = readFileSync(new URL(`../pictures/${picture}.jpg`, import.meta.url));
      const { data, info } = await sharp(bytes).ensureAlpha().raw().toBuffer({ resolveWithObject: true });
      const pixels = { data, width: info.width, height: info.height };
      const { darkest, lightest } = valueRange(pixels);
      expect(lightest - darkest, picture).to.be.above(4);
      const looks = new Set<string>();
      for (let x = 0.05; x < 1; x += 0.05)
        for (let y = 0.05; y < 1; y += 0.05)
          looks.add(
            readArea(pixels, x * info.width, y * info.height, 2)
              .lab.map(Math.round)
              .join(),
          );
      expect(looks.size, picture).to.be.above(150);
    }
  });
});
