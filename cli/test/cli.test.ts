import { execFileSync, spawnSync } from 'node:child_process';
import { fileURLToPath } from 'node:url';
import { expect } from 'chai';
import { main } from '../src/main.ts';

interface Run {
  code: number;
  out: string;
  err: string;
}

function dusk(args: string[], input: unknown): Run {
  const run: Run = { code: 0, out: '', err: '' };
  run.code = main(args, {
    read: () => (typeof input === 'string' ? input : JSON.stringify(input)),
    out: (text) => (run.out += text),
    err: (text) => (run.err += text),
  });
  return run;
}
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- answers are read field by field
const answer = (command: string, input: unknown): any => {
  const { code, out, err } = dusk([command], input);
  expect(err).to.equal('');
  expect(code).to.equal(0);
  return JSON.parse(out);
};

const PALETTE = ['titanium-white', 'yellow-ochre', 'cadmium-red', 'ultramarine-blue', 'phthalo-blue'];

describe('dusk colour', () => {
  it('reads any notation and writes all of them', () => {
    const hex = answer('colour', { hex: '#8a6b4f' });
    expect(hex.hex).to.equal('#8a6b4f');
    for (const notation of ['lab', 'xyz', 'munsell'] as const)
      expect(answer('colour', { [notation]: hex[notation] }).lab[0], notation).to.be.closeTo(hex.lab[0], 0.6);
    const grey = answer('colour', { spectrum: { start: 380, step: 10, r: new Array(36).fill(0.18) }, illuminant: 'A' });
    expect(grey.lab[1]).to.be.closeTo(0, 1e-3);
    expect(grey.munsell).to.match(/^N 4\.9/);
    expect(grey.xyz[0]).to.be.closeTo(19.77, 0.02);
  });

  it('tells the difference to another', () => {
    expect(answer('colour', { lab: [50, 2.6772, -79.7751], other: { lab: [50, 0, -82.7485] } }).deltaE00).to.be.closeTo(2.0425, 1e-4);
  });
});

describe('dusk mix', () => {
  it('mixes tubes, thick, thinned or over a ground', () => {
    const thick = answer('mix', { parts: { 'titanium-white': 9, 'ultramarine-blue': 1 } });
    expect(thick.spectrum.r).to.have.length(36);
    expect(thick.lab[2]).to.be.below(-15);
    const film = answer('mix', {
      parts: { 'quinacridone-rose': 1 },
      film: { thickness_um: 8, ground: { lab: [96, 0, 2] } },
      medium: 0.3,
    });
    expect(film.lab[0]).to.be.above(answer('mix', { parts: { 'quinacridone-rose': 1 } }).lab[0] + 15);
  });
});

describe('dusk solve', () => {
  it('gives recipes whose flat shares mix to the colour it says', () => {
    const { reach, recipes } = answer('solve', { target: { hex: '#7d6a55' }, palette: PALETTE });
    expect(['in', 'near', 'out']).to.include(reach);
    for (const r of recipes) {
      const mixed = answer('mix', { parts: r.flat });
      mixed.lab.forEach((v: number, i: number) => expect(v).to.be.closeTo(r.lab[i], 1e-3));
      for (const id of Object.keys(r.parts)) expect([...PALETTE, ...r.letdowns.map((l: { name: string }) => l.name)]).to.include(id);
    }
  });

  it('keeps to the limits', () => {
    const { recipes } = answer('solve', { target: { lab: [55, 10, 10] }, palette: PALETTE, limits: { tubes: 2, parts: 6 } });
    for (const r of recipes) {
      expect(Object.keys(r.flat).length).to.be.at.most(2);
      expect(Object.values(r.parts as Record<string, number>).reduce((s, n) => s + n, 0)).to.be.at.most(6);
    }
  });

  it('answers an array with an array', () => {
    const many = answer(
      'solve',
      [0, 1, 2].map((i) => ({ target: { lab: [40 + 10 * i, 5, 5] }, palette: PALETTE })),
    );
    expect(many).to.have.length(3);
  });
});

describe('bad input to dusk', () => {
  const cases: [string, unknown][] = [
    ['colour', 'not json'],
    ['colour', ''],
    ['colour', {}],
    ['colour', { hex: '#fff', lab: [1, 2, 3] }],
    ['colour', { spectrum: { start: 380, step: 10, r: [0.5] } }],
    ['colour', { hex: '#fff', illuminant: 'candle' }],
    ['mix', { parts: { 'unicorn-blue': 1 } }],
    ['mix', { parts: { 'titanium-white': -1 } }],
    ['mix', { parts: { 'titanium-white': 0 } }],
    ['mix', { parts: { 'titanium-white': null } }],
    ['mix', { parts: {} }],
    ['mix', { parts: { 'titanium-white': 1 }, film: { thickness_um: 'thick', ground: { hex: '#fff' } } }],
    ['mix', { parts: { 'titanium-white': 1 }, colour: 3 }],
    ['solve', { target: { hex: '#fff' }, palette: [] }],
    ['solve', { target: { hex: '#fff' }, palette: ['titanium-white', 'titanium-white'] }],
    ['solve', { target: { hex: '#fff' }, palette: ['titanium-white'], limits: { parts: 0 } }],
    ['solve', { target: { hex: '#fff' }, palette: new Array(500).fill(0).map((_, i) => `t${i}`) }],
    ['solve', { palette: PALETTE }],
    [
      'solve',
      [
        { target: { hex: '#fff' }, palette: PALETTE },
        { target: { hex: 'no' }, palette: PALETTE },
      ],
    ],
    ['stir', {}],
  ];
  for (const [command, input] of cases)
    it(`${command} ${JSON.stringify(input).slice(0, 60)} is one clear line and exit code 2`, () => {
      const { code, out, err } = dusk([command], input);
      expect(code).to.equal(2);
      expect(out).to.equal('');
      expect(err.trim()).to.not.equal('');
      expect(err.trim().split('\n')).to.have.length(1);
      expect(err).to.not.match(/NaN|undefined is not|TypeError/);
    });
});

describe('dusk as a program', () => {
  const bin = fileURLToPath(new URL('../bin/dusk.mjs', import.meta.url));
  it('reads standard input and writes standard output', () => {
    const out = execFileSync('node', [bin, 'colour'], { input: '{"hex":"#808080"}', encoding: 'utf8' });
    expect(JSON.parse(out).munsell).to.match(/^N 5/);
  }).timeout(30_000);
  it('fails with exit code 2 and shows help by example', () => {
    const bad = spawnSync('node', [bin, 'colour'], { input: '{', encoding: 'utf8' });
    expect(bad.status).to.equal(2);
    expect(bad.stdout).to.equal('');
    for (const command of ['colour', 'mix', 'solve']) expect(dusk([command, '--help'], '').out).to.include('npx dusk');
    expect(dusk([], '').out).to.include('solve');
  }).timeout(30_000);
});
