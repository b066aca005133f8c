import { expect } from 'chai';
import fc from 'fast-check';
import {
  asLaid,
  CATALOGUE,
  coversLaid,
  deltaE00,
  filmOf,
  hexToLab,
  LAID_HOW,
  LAID_WITH,
  labOf,
  pickedUp,
  reflectance,
  smoothSpectrum,
  type PaintCurves,
} from '../src/index.ts';

const paints = [...CATALOGUE.values()] as readonly PaintCurves[];
const anyPaint = fc.constantFrom(...paints);
const anyGround = fc.constantFrom('#0b0b0b', '#7b7b7b', '#b08d57', '#f4f2ec').map((hex) => smoothSpectrum(hexToLab(hex)));
const anyWith = fc.constantFrom(...LAID_WITH);
const tube = (id: string): PaintCurves => CATALOGUE.get(id)!;

describe('paint as it is laid', () => {
  it('comes nearer to how it lies thick, the more of it is laid', () => {
    fc.assert(
      fc.property(anyPaint, anyGround, anyWith, (paint, dry, along) => {
        const hiding = LAID_HOW.map((how) => {
          const { thicknessUm, medium } = filmOf({ how, with: along });
          const black = reflectance(paint, { medium, film: { thicknessUm, ground: new Float64Array(36).fill(0.02) } });
          const white = reflectance(paint, { medium, film: { thicknessUm, ground: new Float64Array(36).fill(0.9) } });
          return Math.max(...white.map((r, i) => r - black[i]!));
        });
        for (let i = 1; i < hiding.length; i++) expect(hiding[i]!).to.be.at.most(hiding[i - 1]! + 1e-9);
        const lab = asLaid(paint, { so: { how: 'loaded', with: along }, below: { dry } });
        expect(lab.every(Number.isFinite)).to.equal(true);
      }),
    );
  });

  it('is over wet paint what a share of that makes of it, and over the same paint is that paint', () => {
    fc.assert(
      fc.property(anyPaint, fc.constantFrom(...LAID_HOW), (paint, how) => {
        const over = asLaid(paint, { so: { how }, below: { wet: paint } });
        expect(deltaE00(over, labOf(reflectance(paint)))).to.be.below(0.01);
      }),
    );
    const [white, blue] = [tube('titanium-white'), tube('ultramarine-blue')];
    const wet = asLaid(white, { so: { how: 'loaded' }, below: { wet: blue } });
    const dry = asLaid(white, { so: { how: 'loaded' }, below: { dry: reflectance(blue) } });
    expect(wet[0]).to.be.below(dry[0] - 10);
    expect(deltaE00(wet, labOf(reflectance(pickedUp(white, blue, 0.15))))).to.be.below(3);
  });

  it('glows where it is clear and covers where it is not; thinner leaves less of it', () => {
    const white = smoothSpectrum(hexToLab('#f4f2ec'));
    const glaze = asLaid(tube('quinacridone-rose'), { so: { how: 'glaze' }, below: { dry: white } });
    expect(glaze[0]).to.be.above(labOf(reflectance(tube('quinacridone-rose')))[0] + 15);
    const layers = (how: (typeof LAID_HOW)[number], id = 'titanium-white') =>
      coversLaid(tube(id), { so: { how }, below: { dry: reflectance(tube('ivory-black')) } }).coats ?? Infinity;
    expect(layers('loaded')).to.equal(1);
    expect(layers('thin')).to.be.within(4, 9);
    expect(layers('glaze')).to.be.above(layers('thin'));
    expect(filmOf({ how: 'thin', with: 'thinner' }).thicknessUm).to.be.below(filmOf({ how: 'thin' }).thicknessUm);
  });
});
