import { expect } from 'chai';
import fc from 'fast-check';
import {
  CATALOGUE,
  clockOf,
  CraftError,
  daySaid,
  fatnessOf,
  firstTime,
  lastDays,
  layersJudged,
  layerTold,
  learnDrying,
  learntFrom,
  lyingOn,
  mayPaintOver,
  MEDIUM_KINDS,
  momentsAhead,
  overlapsOf,
  pileKept,
  shareBelow,
  standsAt,
  timeOf,
  varnishFrom,
  verdictsFor,
  windowOf,
  windowSaid,
  type AreaStory,
  type FeltLayer,
  type Layer,
  type LayerPart,
} from '../src/index.ts';

const part = (slug: string, parts = 1): LayerPart => {
  const { drying, oil, density } = CATALOGUE.get(slug)!;
  return { id: slug, parts, drying, oil, density };
};
const layer = (more: Partial<Layer> = {}): Layer => ({ paint: [part('yellow-ochre')], filmUm: 100, at: 0, temperatureC: 20, ...more });
const DAY = 86_400_000;
const HOUR = DAY / 24;
/** The middle of a layer's window, days. */
const middle = (one: Layer): number => Math.exp(clockOf(one).log);

describe('layers', () => {
  it('of a thin coat at 20 °C dry as their tubes do, by the rules of thumb', () => {
    const amid = (one: Layer, from: number, to: number) => {
      expect(middle(one)).to.be.within(from, to);
      const [a, b] = layerTold(one).touchDry;
      // The rule of thumb lies within what nine of ten do.
      expect(a).to.be.below(from * 1.02);
      expect(b).to.be.above(to * 0.98);
    };
    amid(layer({ paint: [part('burnt-umber')] }), 1, 3);
    amid(layer({ paint: [part('burnt-sienna')] }), 3, 6);
    amid(layer({ paint: [part('cadmium-red')] }), 5, 12);
    // Alkyd medium, 10 to 25 %: dry in 12 to 24 h; slow tubes two to three days.
    amid(layer({ medium: { kind: 'alkyd', share: 0.2 } }), 0.5, 1);
    amid(layer({ paint: [part('cadmium-red')], medium: { kind: 'alkyd', share: 0.2 } }), 2, 3);
    // More alkyd is not faster.
    expect(middle(layer({ medium: { kind: 'alkyd', share: 0.4 } }))).to.equal(middle(layer({ medium: { kind: 'alkyd', share: 0.2 } })));
    // A wash: hours to a day.
    const [soonest, latest] = layerTold(layer({ filmUm: 6, thinner: 0.6 })).touchDry;
    expect(soonest * 24).to.be.within(1, 12);
    expect(latest).to.be.below(1.2);
    // Bound in walnut, in poppy.
    expect(
      middle(layer({ paint: [{ ...part('burnt-sienna'), bound: 'walnut' }] })) / middle(layer({ paint: [part('burnt-sienna')] })),
    ).to.be.within(1.2, 1.5);
    expect(
      middle(layer({ paint: [{ ...part('burnt-sienna'), bound: 'poppy' }] })) / middle(layer({ paint: [part('burnt-sienna')] })),
    ).to.be.within(1.5, 2);
    // Each 10 °C colder doubles it; twice the film takes two to four times as long.
    expect(middle(layer({ temperatureC: 10 })) / middle(layer())).to.be.closeTo(2, 1e-9);
    expect(middle(layer({ filmUm: 200 })) / middle(layer())).to.be.within(2, 4);
    // Over a millimetre: weeks to months.
    expect(middle(layer({ filmUm: 1200 }))).to.be.within(21, 300);
    // A mixture lies between its tubes, and a strong drier counts beyond its share.
    expect(middle(layer({ paint: [part('burnt-umber'), part('yellow-ochre')] }))).to.be.within(
      middle(layer({ paint: [part('burnt-umber')] })),
      Math.sqrt(middle(layer({ paint: [part('burnt-umber')] })) * middle(layer())),
    );
  });

  it('are as fat as their oil: worked by hand for burnt sienna with a fifth of linseed oil', () => {
    const { oil, density } = CATALOGUE.get('burnt-sienna')!;
    const own = ((oil / (100 + oil)) * density) / 0.93;
    expect(fatnessOf(layer({ paint: [part('burnt-sienna')] }))).to.be.closeTo(own, 1e-9);
    expect(fatnessOf(layer({ paint: [part('burnt-sienna')], medium: { kind: 'linseed', share: 0.2 } }))).to.be.closeTo(
      0.8 * own + 0.2,
      1e-9,
    );
  });

  const anyLayer = fc.record({
    paint: fc
      .uniqueArray(fc.constantFrom(...CATALOGUE.keys()), { minLength: 1, maxLength: 4 })
      .map((slugs) => slugs.map((slug, i) => part(slug, 1 + i))),
    filmUm: fc.integer({ min: 5, max: 2000 }),
    temperatureC: fc.integer({ min: 5, max: 32 }),
    thinner: fc.double({ min: 0, max: 0.6, noNaN: true }),
    medium: fc.record({ kind: fc.constantFrom(...MEDIUM_KINDS), share: fc.double({ min: 0, max: 0.5, noNaN: true }) }),
    at: fc.constant(0),
  });

  it('with more oil are never leaner, thicker never dry sooner, warmer never later; windows are windows', () => {
    fc.assert(
      fc.property(anyLayer, fc.double({ min: 0, max: 0.3, noNaN: true }), (one, more) => {
        const oily = (share: number): Layer => ({ ...one, medium: { kind: 'linseed', share } });
        const share = one.medium.share;
        expect(fatnessOf(oily(Math.min(0.95, share + more)))).to.be.at.least(fatnessOf(oily(share)) - 1e-12);
        const own = layerTold(one);
        const thicker = layerTold({ ...one, filmUm: one.filmUm * (1 + more) });
        const warmer = layerTold({ ...one, temperatureC: one.temperatureC + 10 * more });
        for (const i of [0, 1] as const) {
          expect(thicker.touchDry[i]).to.be.at.least(own.touchDry[i] - 1e-12);
          expect(warmer.touchDry[i]).to.be.at.most(own.touchDry[i] + 1e-12);
          expect(own.throughDry[i]).to.be.above(own.touchDry[i]);
          expect(thicker.throughDry[i]).to.be.at.least(own.throughDry[i] - 1e-12);
        }
        expect(own.touchDry[1]).to.be.above(own.touchDry[0]);
        expect(own.fatness).to.be.within(0, 1);
        // Nobody having said how warm the room is, less is known.
        const [from, to] = layerTold({ ...one, temperatureC: undefined }).touchDry;
        expect(to / from).to.be.above((own.touchDry[1] / own.touchDry[0]) * 1.05);
      }),
    );
  });

  it('that are thick are dry through later yet than they are dry to the touch', () => {
    const later = (filmUm: number): number => {
      const { touchDry, throughDry } = layerTold(layer({ filmUm }));
      return throughDry[1] / touchDry[1];
    };
    expect(later(400)).to.be.above(1.5 * later(100));
  });

  it('are judged over what is below, each with its reason and what would even it', () => {
    const verdicts = (...layers: Layer[]) => layersJudged(layers).map(({ verdict }) => verdict);
    const fat = layer({ medium: { kind: 'linseed', share: 0.3 } });
    expect(verdicts(layer(), { ...fat, at: 60 * DAY })).to.deep.equal(['good', 'good']);
    expect(verdicts(layer(), { ...fat, at: DAY / 4 })[1]).to.equal('wet below');
    expect(verdicts(layer(), { ...fat, at: 3 * DAY })[1]).to.equal('tacky below');
    expect(verdicts(layer(), { ...fat, at: 5 * DAY })[1]).to.equal('perhaps tacky below');
    const [, leaner] = layersJudged([fat, layer({ at: 60 * DAY })]);
    expect(leaner!.verdict).to.equal('leaner than below');
    // No film feels a hundredth of oil less.
    const hardly = layer({ medium: { kind: 'linseed', share: 0.01 } });
    expect(fatnessOf(hardly)).to.be.above(fatnessOf(layer()));
    expect(verdicts(hardly, layer({ at: 60 * DAY }))[1]).to.equal('good');
    const drops = Number(/(\d+) drops? of oil/.exec(leaner!.says)![1]);
    // So many drops to a pile of 4 ml do even it.
    const oil = (drops * 0.05) / (4 + drops * 0.05);
    expect(fatnessOf(layer({ medium: { kind: 'linseed', share: oil } }))).to.be.at.least(fatnessOf(fat) - 0.005);
    const slow = layer({ paint: [part('cadmium-red')] });
    expect(verdicts(slow, layer({ paint: [part('burnt-umber')], at: 20 * DAY, medium: { kind: 'linseed', share: 0.2 } }))[1]).to.equal(
      'fast over slow',
    );
    expect(verdicts(layer({ filmUm: 400 }), layer({ ...fat, filmUm: 20, at: 120 * DAY }))[1]).to.equal('thin over thick');
  });

  it('that are none are refused in a sentence', () => {
    for (const [one, says] of [
      [layer({ paint: [] }), /some paint/],
      [layer({ paint: [{ ...part('viridian'), parts: -1 }] }), /some paint/],
      [layer({ filmUm: 0 }), /µm/],
      [layer({ thinner: 1 }), /thinner/],
      [layer({ medium: { kind: 'linseed', share: 1 } }), /medium/],
      [layer({ temperatureC: 80 }), /°C/],
      [layer({ at: NaN }), /day/],
    ] as const)
      expect(() => layerTold(one)).to.throw(CraftError, says);
    expect(() => learnDrying([{ id: 'a', layer: layer({ at: DAY }), touches: [{ at: 0, felt: 'dry' }] }])).to.throw(CraftError, /after/);
    expect(() => learnDrying([{ id: 'a', layer: layer(), touches: [{ at: DAY, felt: 'damp' as never }] }])).to.throw(
      CraftError,
      /wet, tacky/,
    );
  });
});

describe('touches', () => {
  /** Repeatable chance. */
  const chance = (seed: number) => () => {
    seed = (seed * 1664525 + 1013904223) >>> 0;
    return seed / 4294967296;
  };
  const TUBES = ['burnt-umber', 'yellow-ochre', 'titanium-white', 'ultramarine-blue', 'cadmium-red', 'ivory-black'];
  /** A studio whose tubes, room and hand are its own: what it calls 80 µm, and what 20 °C, is otherwise. */
  function studio(seed: number) {
    const next = chance(seed);
    const between = (a: number, b: number): number => a + (b - a) * next();
    const tubes = new Map(TUBES.map((slug) => [slug, between(0.6, 1.4)]));
    const warmth = between(12, 28);
    const hand = between(0.5, 1.5);
    const lay = (k: number): FeltLayer & { readonly dries: number } => {
      const paint = [0, 1].map(() => part(TUBES[Math.floor(next() * TUBES.length)]!, 1 + Math.floor(next() * 4)));
      const own: Layer = { paint, filmUm: [30, 80, 200][Math.floor(next() * 3)]!, at: 3 * k * DAY };
      const whole = paint.reduce((sum, { parts }) => sum + parts, 0);
      const truly = { ...own, filmUm: own.filmUm * hand * between(0.85, 1.15), temperatureC: warmth };
      const by = paint.reduce((sum, { id, parts }) => sum + (parts / whole) * Math.log(tubes.get(id!)!), 0);
      return { id: `layer ${k}`, layer: own, touches: [], dries: Math.exp(clockOf(truly).log + by) };
    };
    return { next, lay };
  }
  const covered = (from: number, to: number, dries: number): boolean => dries >= from && dries <= to;

  it('windows cover nine of ten layers where tubes, rooms and hands differ, and are half as wide after ten touches', () => {
    let [before, after, all] = [0, 0, 0];
    const ratios: number[] = [];
    for (let seed = 1; seed <= 120; seed++) {
      const { next, lay } = studio(seed);
      const felt = Array.from({ length: 10 }, (_, k): FeltLayer => {
        const one = lay(k);
        const days = Math.exp(clockOf(one.layer).log) * (0.5 + 1.3 * next());
        const how = days < 0.4 * one.dries ? 'wet' : days < one.dries ? 'tacky' : 'dry';
        return { ...one, touches: [{ at: one.layer.at + days * DAY, felt: how }] };
      });
      const learnt = learnDrying(felt);
      for (let k = 10; k < 16; k++) {
        const { layer: own, dries } = lay(k);
        const first = windowOf(firstTime(clockOf(own)));
        const then = windowOf(timeOf(undefined, own, learnt));
        all++;
        if (covered(...first, dries)) before++;
        if (covered(...then, dries)) after++;
        ratios.push((then[1] - then[0]) / (first[1] - first[0]));
      }
    }
    expect(before / all).to.be.at.least(0.9);
    expect(after / all).to.be.at.least(0.87);
    ratios.sort((a, b) => a - b);
    expect(ratios[Math.floor(ratios.length / 2)]).to.be.at.most(0.5);
  });

  it('tell of the room for a season, and of another season anew', () => {
    /** How unsure the next layer is, where two were felt so many days apart. */
    const unsure = (days: number): number => {
      const felt = [0, days].map((at, k): FeltLayer => {
        const own = layer({ temperatureC: undefined, at: at * DAY });
        return { id: `layer ${k}`, layer: own, touches: [{ at: own.at + 0.6 * middle(own) * DAY, felt: 'dry' }] };
      });
      return timeOf(undefined, layer({ temperatureC: undefined, at: (days + 1) * DAY }), learnDrying(felt)).sd;
    };
    expect(unsure(400)).to.be.above(1.02 * unsure(3));
    expect(unsure(3)).to.be.closeTo(unsure(4), 0.003);
  });

  it('move the layer that was touched, and say no more than was felt', () => {
    const own = layer();
    const first = firstTime(clockOf(own));
    const after = (felt: 'wet' | 'tacky' | 'dry' | 'dry through', days: number) =>
      learnDrying([{ id: 'it', layer: own, touches: [{ at: days * DAY, felt }] }]).times.get('it')!;
    expect(after('wet', 6).mean).to.be.above(first.mean);
    expect(after('dry', 2).mean).to.be.below(first.mean);
    expect(after('dry through', 4).mean).to.be.below(after('dry', 4).mean);
    fc.assert(
      fc.property(
        fc.constantFrom('wet', 'tacky', 'dry', 'dry through' as const),
        fc.double({ min: 0.02, max: 400, noNaN: true }),
        (felt, days) => {
          const { mean, sd } = after(felt as 'wet', days);
          expect(sd).to.be.within(0, first.sd + 1e-9);
          expect(Number.isFinite(mean)).to.equal(true);
        },
      ),
    );
    // Other layers of these tubes move with it, and less of others.
    const learnt = learnDrying([{ id: 'it', layer: own, touches: [{ at: 9 * DAY, felt: 'wet' }] }]);
    const moved = (paint: string): number =>
      timeOf(undefined, layer({ paint: [part(paint)] }), learnt).mean - clockOf(layer({ paint: [part(paint)] })).log;
    expect(moved('yellow-ochre')).to.be.above(moved('burnt-umber') + 0.05);
    expect(moved('burnt-umber')).to.be.above(0);
  });

  it('rest on the normal distribution as it is tabled', () => {
    for (const [x, share] of [
      [0, 0.5],
      [1, 0.841345],
      [1.644854, 0.95],
      [-1.959964, 0.025],
    ] as const)
      expect(shareBelow(x)).to.be.closeTo(share, 1e-6);
  });
});

describe('areas', () => {
  const box = (x: number, y: number, w: number, h: number) => [
    { x, y },
    { x: x + w, y },
    { x: x + w, y: y + h },
    { x, y: y + h },
  ];
  const laid = (id: string, at: number, more: Partial<Layer> = {}) => ({ id, at, kind: 'laid' as const, layer: layer({ at, ...more }) });

  it('lie over one another where their outlines do, and the whole painting under all', () => {
    const over = overlapsOf([
      { id: 'all', isWhole: true },
      { id: 'somewhere' },
      { id: 'left', outline: box(0, 0, 0.5, 1) },
      { id: 'right', outline: box(0.5, 0, 0.5, 1) },
      { id: 'jar', outline: box(0.4, 0.4, 0.2, 0.3) },
      { id: 'speck', outline: box(0.1, 0.1, 0.005, 0.005) },
    ]);
    expect([...over.get('left')!].sort()).to.deep.equal(['all', 'jar', 'left', 'speck']);
    expect([...over.get('right')!].sort()).to.deep.equal(['all', 'jar', 'right']);
    expect(over.get('all')!.size).to.equal(6);
    // What was only named lies over nothing but what covers the whole.
    expect([...over.get('somewhere')!].sort()).to.deep.equal(['all', 'somewhere']);
  });

  it('may be painted over once all that lies below is dry, by the one that holds it up', () => {
    const areas: AreaStory[] = [
      { id: 'sky', outline: box(0, 0, 1, 0.6), events: [laid('thick', 0, { filmUm: 300, paint: [part('cadmium-red')] })] },
      { id: 'house', outline: box(0.2, 0.5, 0.2, 0.4), events: [laid('thin', 0, { filmUm: 30, paint: [part('burnt-umber')] })] },
      { id: 'field', outline: box(0, 0.7, 0.15, 0.3), events: [] },
    ];
    const over = overlapsOf(areas);
    const lying = lyingOn(areas);
    const at = (id: string, days: number) => mayPaintOver(lying, over.get(id)!, days * DAY);
    expect(at('field', 0.5)).to.deep.equal({ stands: 'bare', sunk: false });
    expect(at('house', 5).by!.id).to.equal('thick');
    expect(at('house', 5).stands).to.equal('wet');
    expect(
      standsAt(
        lying.find(({ id }) => id === 'thin')!,
        5 * DAY,
      ),
    ).to.be.oneOf(['dry', 'dry through']);
    expect(at('sky', 900).stands).to.equal('dry through');
    // An overlap waits for both, and each is told.
    const glaze = layer({ at: 10 * DAY, filmUm: 12, paint: [part('burnt-umber')] });
    expect(verdictsFor(glaze, 'house', lying, over).map(({ over: below }) => below.id)).to.include('thick');
    expect(verdictsFor(layer({ at: DAY }), 'field', lying, over)).to.deep.equal([]);
  });

  it('go by what was felt, wiped back, lifted and scraped', () => {
    const events = [laid('one', 0, { filmUm: 200 })];
    const dryBy = (more: AreaStory['events']) => {
      const areas = [{ id: 'a', events: [...events, ...more] }];
      return lyingOn(areas, learntFrom(areas))[0]!;
    };
    const plain = dryBy([]);
    const touched = dryBy([{ id: 't', at: 3 * DAY, kind: 'touched', felt: 'dry' }]);
    expect(touched.touchDry[1]).to.be.below(plain.touchDry[1]);
    expect(standsAt(touched, 3.1 * DAY)).to.equal('dry');
    expect(standsAt(plain, 3.1 * DAY)).to.be.oneOf(['wet', 'tacky']);
    let film = plain.layer.filmUm;
    for (const kind of ['lifted', 'scraped back', 'wiped back'] as const) {
      const less = dryBy([{ id: 'w', at: HOUR, kind }]);
      expect(less.layer.filmUm).to.be.below(film);
      expect(less.touchDry[1]).to.be.below(plain.touchDry[1]);
      film = less.layer.filmUm;
    }
    const sunk = [{ id: 'a', events: [...events, { id: 't', at: 20 * DAY, kind: 'touched', felt: 'sunk' } as const] }];
    expect(mayPaintOver(lyingOn(sunk, learntFrom(sunk)), new Set(['a']), 21 * DAY).sunk).to.equal(true);
    // What was touched before anything lay there says nothing.
    expect(lyingOn([{ id: 'a', events: [{ id: 't', at: 0, kind: 'touched', felt: 'dry' }] }])).to.deep.equal([]);
  });
});

describe('piles on the palette', () => {
  const of = (slug: string) => [{ id: slug, share: 1, drying: CATALOGUE.get(slug)!.drying }];
  const after = (slug: string, hours: number, more = {}) => pileKept(of(slug), { mixedAt: 0, at: hours * HOUR, ...more }).stands;
  it('with alkyd skin over in hours, of fast tubes in a day, of slow ones in days; covered three times later', () => {
    expect(after('burnt-umber', 12)).to.equal('workable');
    expect(after('burnt-umber', 24)).to.equal('skins over');
    expect(after('burnt-umber', 40)).to.equal('skinned');
    expect(after('burnt-umber', 24 * 5)).to.equal('gone');
    expect(after('cadmium-red', 40)).to.equal('workable');
    expect(after('cadmium-red', 24 * 4.5)).to.equal('skinned');
    expect(after('burnt-umber', 40, { isCovered: true })).to.equal('workable');
    expect(after('cadmium-red', 4, { withAlkyd: true })).to.equal('skinned');
    expect(() => pileKept([], { mixedAt: 0, at: 0 })).to.throw(CraftError);
  });
});

describe('a day on which it must hang', () => {
  const toCome = [
    { name: 'first', layer: { paint: [part('yellow-ochre')], filmUm: 80, temperatureC: 20 } },
    { name: 'second', layer: { paint: [part('cadmium-red')], filmUm: 80, temperatureC: 20 } },
  ];
  it('gives the last day of each layer, backwards: each dry before the next, the last before it hangs', () => {
    const due = 60 * DAY;
    const { layers, short, varnishBy } = lastDays(due, toCome, { now: 0 });
    const [first, second] = layers;
    expect(second!.by).to.be.closeTo(due - second!.driesIn[1] * DAY, 1);
    expect(first!.by).to.be.closeTo(second!.by - first!.driesIn[1] * DAY, 1);
    expect(short).to.be.below(0);
    expect(varnishBy).to.equal(undefined);
    const varnished = lastDays(due, toCome, { now: 0, varnish: 'breathing' });
    expect(varnished.layers[1]!.by).to.be.closeTo(second!.by - DAY, 1);
    expect(lastDays(due, toCome, { now: 0, varnish: 'final' }).short).to.be.above(100);
  });
  it('tells ways out with their price, the one that wins most first, each winning what it says', () => {
    const due = 9 * DAY;
    const { layers, short } = lastDays(due, toCome, { now: 0 });
    expect(short).to.be.above(0);
    const ways = layers[1]!.waysOut;
    expect(ways.map(({ does }) => does)).to.have.members(['thinner', 'alkyd', 'without']);
    expect(ways.map(({ wins }) => wins)).to.deep.equal(ways.map(({ wins }) => wins).sort((a, b) => b - a));
    const thin = lastDays(due, [toCome[0]!, { ...toCome[1]!, layer: { ...toCome[1]!.layer, filmUm: 30 } }], { now: 0 });
    expect(short - thin.short).to.be.closeTo(ways.find(({ does }) => does === 'thinner')!.wins, 1e-9);
    expect(() => lastDays(0, toCome, { now: 1 })).to.throw(CraftError, /passed/);
  });
  it('varnish comes by its kind', () => {
    expect(varnishFrom(0, 9 * DAY, 'breathing')[0]).to.equal(9 * DAY);
    expect(varnishFrom(0, 9 * DAY, 'final')[0] / DAY).to.be.within(180, 184);
  });
});

describe('the calendar of a painter', () => {
  const ZONE = 'Europe/Berlin';
  const at = (text: string): number => Date.parse(text);
  const now = at('2026-11-30T18:00:00+01:00');
  it('asks about tonight, tomorrow and the weekend', () => {
    const moments = (iso: string) => momentsAhead(at(iso), ZONE).map(({ name, at: when }) => `${name} ${new Date(when).toISOString()}`);
    expect(moments('2026-11-30T18:00:00+01:00')).to.deep.equal([
      'tonight 2026-11-30T19:00:00.000Z',
      'tomorrow 2026-12-01T09:00:00.000Z',
      'at the weekend 2026-12-05T09:00:00.000Z',
    ]);
    expect(moments('2026-12-05T12:00:00+01:00').map((one) => one.replace(/ \d.*/, ''))).to.deep.equal([
      'tonight',
      'tomorrow, Sunday',
      'on Monday',
    ]);
    // On a Friday tomorrow is the weekend, and its other day comes.
    expect(moments('2026-12-04T18:00:00+01:00')).to.deep.equal([
      'tonight 2026-12-04T19:00:00.000Z',
      'tomorrow, Saturday 2026-12-05T09:00:00.000Z',
      'on Sunday 2026-12-06T09:00:00.000Z',
    ]);
    // Late in the evening it is tonight still.
    expect(momentsAhead(at('2026-11-30T22:30:00+01:00'), ZONE)[0]!.at).to.equal(at('2026-11-30T22:30:00+01:00'));
    // The night on which summer time begins has an hour less: ten in the morning is ten in the morning.
    const [, tomorrow] = momentsAhead(at('2027-03-27T18:00:00+01:00'), ZONE);
    expect(new Date(tomorrow!.at).toISOString()).to.equal('2027-03-28T08:00:00.000Z');
  });
  it('says days and windows as they are said', () => {
    expect(daySaid(at('2026-11-30T21:00:00+01:00'), now, ZONE)).to.equal('tonight');
    expect(daySaid(at('2026-12-01T00:30:00+01:00'), now, ZONE)).to.equal('tomorrow');
    expect(daySaid(at('2026-12-03T12:00:00+01:00'), now, ZONE)).to.equal('Thursday');
    expect(daySaid(at('2026-12-20T12:00:00+01:00'), now, ZONE)).to.equal('20 December');
    expect(daySaid(at('2027-05-14T12:00:00+02:00'), now, ZONE)).to.equal('mid May 2027');
    const window = (a: string, b: string) => windowSaid([at(a), at(b)], now, ZONE);
    expect(window('2026-12-03T12:00:00+01:00', '2026-12-06T12:00:00+01:00')).to.equal('Thursday to Sunday');
    expect(window('2026-11-29T12:00:00+01:00', '2026-12-01T12:00:00+01:00')).to.equal('by tomorrow');
    expect(window('2026-11-30T20:00:00+01:00', '2026-11-30T23:00:00+01:00')).to.equal('in 2 to 5 hours');
    expect(window('2026-11-20T12:00:00+01:00', '2026-11-28T12:00:00+01:00')).to.equal('since Saturday');
  });
});
