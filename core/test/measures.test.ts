import { expect } from 'chai';
import fc from 'fast-check';
import {
  beadLength,
  isTouch,
  keptAs,
  measureFromInput,
  MEASURES,
  partsInWords,
  tell,
  tellAdded,
  wholeParts,
  wordForParts,
} from '../src/index.ts';

describe('the ways of measuring', () => {
  it('tell the same dose by eye, in parts, as beads, by scale', () => {
    const dose = (parts: number, ml: number, more = {}) => ({ parts, ml, grams: 1.5 * ml, beadMm: beadLength(ml, 6), ...more });
    const told = tell([dose(9, 3.26), dose(2, 0.72), dose(0.05, 0.018, { touches: 1 })]);
    expect(told[0]).to.deep.equal({ eye: 'mostly', parts: '9', beads: '115 mm', scale: '4.9 g' });
    expect(told[1]).to.deep.equal({ eye: 'some', parts: '2', beads: '25 mm', scale: '1.1 g' });
    expect(told[2]).to.deep.equal({ eye: 'a touch', parts: 'a touch', beads: 'a touch', scale: 'a touch' });
    expect(tell([dose(3, 3)])[0]!.eye).to.equal('all of it');
    expect(measureFromInput('beads')).to.equal('beads');
    expect(() => measureFromInput('ounces')).to.throw(/eye, parts, beads, scale/);
  });

  it('ask a scale for nothing that it does not show: what it would be a tenth off by is laid as a bead', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.005, max: 30, noNaN: true }), fc.double({ min: 0.9, max: 4, noNaN: true }), (ml, density) => {
        for (const said of [
          tellAdded(ml, { nozzleMm: 6, density }, 'scale', 40, 0.5),
          tell([
            { parts: 9, ml: 20, grams: 30, beadMm: 700 },
            { parts: 1, ml, grams: ml * density, beadMm: beadLength(ml, 6), ...(beadLength(ml, 6) < 3 && { touches: 1 }) },
          ])[1]!.scale,
        ]) {
          const grams = /^(\d+(?:\.\d)?) g$/.exec(said);
          if (grams) expect(Number(grams[1])).to.be.within(0.85 * ml * density, 1.15 * ml * density);
          else expect(said).to.match(/^\d+(\.\d)? mm$|touch|touches|speck/);
          if (beadLength(ml, 6) < 3 * (1 - 1e-9)) expect(said).to.match(/touch|speck/);
        }
      }),
    );
  });

  it('count whole parts only, near what there is', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0.3, max: 30, noNaN: true }), { minLength: 2, maxLength: 5 }), (parts) => {
        const whole = wholeParts(parts);
        const by = whole.reduce((s, n) => s + n, 0) / parts.reduce((s, n) => s + n, 0);
        whole.forEach((n, i) => {
          expect(Number.isInteger(n) && n >= 1).to.equal(true);
          expect(n / (parts[i]! * by)).to.be.within(0.8, 1.25);
        });
      }),
    );
    expect(wholeParts([9, 2, 1])).to.deep.equal([9, 2, 1]);
    expect(wholeParts([3.1667, 1])).to.deep.equal([3, 1]);
    expect(wholeParts([56.4, 18.8])).to.deep.equal([3, 1]);
    expect(wholeParts([])).to.deep.equal([]);
  });

  it('say amounts in words whose range holds them', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.02, max: 12, noNaN: true }), (parts) => {
        const { range } = partsInWords(wordForParts(parts));
        expect(parts).to.be.within(range[0], range[1]);
      }),
    );
  });

  it('keep what is laid by eye or by the knife’s tip as ranges that hold it, and nothing else', () => {
    const ml = fc.double({ min: 0.01, max: 20, noNaN: true });
    fc.assert(
      fc.property(ml, ml, fc.constantFrom(...MEASURES), (dose, more, measure) => {
        const { low, high, said } = keptAs(dose, 6, measure, dose + more);
        expect(dose).to.be.within(low, high);
        const isRange = measure === 'eye' || dose < 0.0848 * 0.9;
        if (isRange) expect(low < dose || high > dose, `${dose} of ${dose + more}`).to.equal(true);
        if (said === undefined) expect([low, high]).to.deep.equal([dose, dose]);
        else expect(isTouch({ said }) || partsInWords(said).parts > 0).to.equal(true);
      }),
    );
    // The whole of a heap is what it is, however it was laid.
    expect(keptAs(4, 6, 'eye', 4)).to.deep.equal({ low: 4, high: 4 });
  });
});
