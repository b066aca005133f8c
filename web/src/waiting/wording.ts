import { colourName, mlText, WITH_SAYS, partsText, valueOfColour, valueScaleName, writeValue, type Lab } from '@dusk/core';
import { PILE_FIELDS } from '@dusk/wire/pileFields';
import type { Plain, PlainValues } from '@dusk/wire/plain';
import { labOfDto } from '@dusk/wire/written';
import type {
  AboutSent,
  CanvasSent,
  LabSent,
  LaidSent,
  PassageSent,
  MixtureSent,
  Needs,
  OperationName,
  PurposeSent,
  TargetSent,
  View,
} from '@dusk/wire';
import { counted, moment } from '../floor/words.ts';
import type { RowMaps } from '../studio/rows.ts';

/** Every operation that changes fields of a row that carries a version. */
export type Changing = { [N in OperationName]: N extends `${string}.change` ? N : never }[OperationName];
/** What such an operation may change. */
export type FieldOf<N extends Changing> = Exclude<keyof Needs<N>, 'id' | 'version'>;

/** A field in a painter's words. */
interface Field<T> {
  readonly name: string;
  readonly says: (value: T, rows: RowMaps) => string;
  /** A colour that is shown beside the words. */
  readonly colour?: (value: T) => Lab;
  /** What is drawn of it beside the words: corners in shares of the picture or the canvas, x and y in turn. */
  readonly drawn?: (value: T) => readonly (readonly number[])[];
  /** The picture that it is, by its id. */
  readonly picture?: (value: T) => string;
  /** Most letters of a text: two of them can stand beside one another. */
  readonly letters?: number;
  /** A field of many parts is decided part by part: those that the hand did not touch stay as they now are. */
  readonly parts?: Readonly<Record<string, Field<never>>> | true;
}
type Wording = { readonly [N in Changing]: { readonly [F in FieldOf<N>]-?: Field<NonNullable<Needs<N>[F]>> } };

const line = (name: string, letters: number): Field<string> => ({ name, says: (value) => value || 'nothing', letters });
const figure = (name: string, unit = ''): Field<number> => ({ name, says: (value) => `${Number(value.toFixed(2))}${unit}` });
const word = (name: string): Field<string> => ({ name, says: (value) => value || 'nothing' });
const yes = (name: string): Field<boolean> => ({ name, says: (value) => (value ? 'yes' : 'no') });

/** Plain fields as their table says them. */
const plainWords = <T extends Readonly<Record<string, Plain>>>(fields: T): { readonly [K in keyof T]: Field<PlainValues<T>[K]> } =>
  Object.fromEntries(
    Object.entries(fields).map(([key, field]) => [key, field.is === 'text' ? line(field.called, field.longest) : figure(field.called)]),
  ) as unknown as { readonly [K in keyof T]: Field<PlainValues<T>[K]> };

const colourSays = (lab: LabSent): string => `${writeValue(valueOfColour(labOfDto(lab)), 'munsell')} ${colourName(labOfDto(lab))}`;
const colour = (name: string): Field<LabSent> => ({ name, says: colourSays, colour: labOfDto });

const tubeName = (id: string, rows: RowMaps): string => rows.tubes.get(id)?.name ?? 'a tube';
const pileName = (id: string, rows: RowMaps): string => rows.piles.get(id)?.name ?? 'a pile that is gone';
const listed = (names: readonly string[]): string => names.join(', ') || 'none';

/** A plan as it is measured, heaps mixed first before the last. */
function planSays({ heaps }: Pick<MixtureSent, 'heaps'>, rows: RowMaps): string {
  const said = heaps.map(({ ingredients }) =>
    ingredients
      .map((one) => {
        const { tube, pile, parts, said: words } = one as { tube?: string; pile?: string; parts: number; said?: string };
        const name = tube !== undefined ? tubeName(tube, rows) : pile !== undefined ? pileName(pile, rows) : 'of that';
        return `${words ?? partsText(parts)} ${name}`;
      })
      .join(', '),
  );
  return said.map((heap, at) => (at < said.length - 1 ? `first ${heap}` : said.length > 1 ? `then ${heap}` : heap)).join('; ');
}

const TARGETS: Readonly<Record<TargetSent['kind'], string>> = { absolute: '', value: ', its value alone', relative: ', from another pile' };

/** What a pile is for, all of it. */
/** How paint is laid, all of it. */
function laidSays({ how, over, with: along, takes, brushId, layers, said, against }: LaidSent, rows: RowMaps): string {
  const parts = [
    'laid',
    how,
    over && `over ${over}`,
    takes && `taking up ${takes}`,
    along && `with ${WITH_SAYS[along].called}`,
    brushId !== undefined && `with what is left of ${pileName(brushId, rows)} in the brush`,
    layers !== undefined && `in ${counted(layers, 'layer')}`,
    said,
    against && `though ${against}`,
  ];
  return parts.filter(Boolean).join(' ');
}

function passageSays({ cm2, outline, open, heldBack }: PassageSent): string {
  const parts = [
    `enough for ${Number(cm2.toFixed(1))} cm²`,
    outline ? 'drawn round' : '',
    open ? `${Math.round(open * 100)} % left open` : '',
    heldBack ? `${Math.round(heldBack * 100)} % held back` : '',
  ];
  return parts.filter(Boolean).join(', ');
}

function purposeSays(purpose: PurposeSent, rows: RowMaps): string {
  const {
    thing,
    zone,
    also = [],
    neighbours = [],
    overId,
    laid,
    passage,
    inPlace = [],
    leftOf,
    covered,
    leftBroken,
    showing = [],
  } = purpose;
  const said = [
    [zone, thing].filter(Boolean).join(' of '),
    also.length > 0 ? `in ${counted(also.length, 'place')} more` : '',
    ...neighbours.map(({ pileId, least, most, apart }) => {
      const bounds = [
        apart !== undefined ? `at least ${apart} apart` : '',
        least !== undefined ? `not nearer than ${least}` : '',
        most !== undefined ? `not further than ${most}` : '',
      ].filter(Boolean);
      return `beside ${[pileName(pileId, rows), ...bounds].join(', ')}`;
    }),
    laid ? laidSays(laid, rows) : '',
    passage ? passageSays(passage) : '',
    ...inPlace.map(
      ({ tubeId, pileId, said: much }) => `in place ${much} ${tubeId !== undefined ? tubeName(tubeId, rows) : pileName(pileId!, rows)}`,
    ),
    overId !== undefined ? `over ${pileName(overId, rows)}` : '',
    leftOf !== undefined ? `left of ${pileName(leftOf, rows)}` : '',
    covered ? 'kept covered' : '',
    leftBroken ? 'left broken' : '',
    showing.length > 0 ? `showing ${listed(showing.map((id) => rows.tubes.get(id)?.name ?? pileName(id, rows)))}` : '',
  ];
  return said.filter(Boolean).join('; ') || 'nothing said';
}

const percent = (share: number): string => `${Number((100 * share).toFixed(2))} %`;
const onOff = (name: string, on: string): Field<boolean> => ({ name, says: (value) => (value ? on : 'not so') });

/** How a picture is cut, turned and lit, part by part; what is missing here does not compile. */
const VIEW: { readonly [P in keyof View]-?: Field<NonNullable<View[P]>> } = {
  turn: { name: 'turned', says: (quarters) => (quarters ? `by ${90 * quarters}°` : 'not turned') },
  straighten: { name: 'straightened', says: (degrees) => `by ${Number(degrees.toFixed(2))}°` },
  mirror: onOff('mirrored', 'mirrored'),
  crop: {
    name: 'frame',
    says: ({ x, y, width, height }) => `${percent(width)} × ${percent(height)} of it, from ${percent(x)} across and ${percent(y)} down`,
    drawn: ({ x, y, width, height }) => [[x, y, x + width, y, x + width, y + height, x, y + height]],
  },
  exposure: figure('exposure'),
  neutral: { name: 'what is grey in its light', says: colourSays, colour: labOfDto },
  kelvin: figure('its light', ' K'),
  key: {
    name: 'key',
    says: ({ kind, held, heldDark, from, to }) =>
      [kind, held && `${percent(held)} held back`, heldDark && `${percent(heldDark)} of the dark`, to !== undefined && `${from} to ${to}`]
        .filter(Boolean)
        .join(', '),
  },
  grid: {
    name: 'grid',
    says: ({ across, down, diagonals, thirds }) => `${across} × ${down}${diagonals ? ', diagonals' : ''}${thirds ? ', thirds' : ''}`,
  },
  steps: { name: 'values cut at', says: (bounds) => bounds.map((one) => Number(one.toFixed(2))).join(', ') },
  pivot: figure('warm and cool parted at'),
  dress: { name: 'what its steps are painted with', says: (steps, rows) => listed(steps.map((one) => dressSays(one, rows))) },
  shapes: {
    name: 'plan in flat shapes',
    says: (shapes, rows) =>
      `${counted(shapes.length, 'shape')}: ${listed(shapes.map(({ thing, lab, pileId }) => [thing, pileId ? pileName(pileId, rows) : colourSays(lab)].filter(Boolean).join(', ')))}`,
    drawn: (shapes) => shapes.map(({ points }) => points),
  },
  trials: {
    name: 'trials',
    says: (trials) => listed(trials.map(({ changes }) => counted(changes.length, 'change'))),
    drawn: (trials) => trials.flatMap(({ changes }) => changes.map(({ points }) => points)),
  },
  canvas: { name: 'photo of the canvas', says: () => 'held against a picture', drawn: ({ corners }) => [corners] },
  dayEnd: onOff('what it is of', 'a day’s end'),
  blank: onOff('what it is made of', 'its shapes alone'),
};
/** What a step of value is painted with: a pile, the mean of what it has, nothing yet. */
const dressSays = (one: string, rows: RowMaps): string => (one === '' ? 'nothing yet' : (rows.piles.get(one)?.name ?? one));
const viewSays = (view: View, rows: RowMaps): string =>
  (Object.entries(VIEW) as [keyof View, Field<unknown>][])
    .flatMap(([part, { name, says }]) => (view[part] === undefined ? [] : [`${name} ${says(view[part], rows)}`]))
    .join('; ') || 'as it came';

/** What a painting is painted on and when it has to be ready. */
function aboutSays({ support, priming, dueOn, varnish, toCome, followsId, seenTo = [], finishedAt }: AboutSent, rows: RowMaps): string {
  const said = [
    support ? `on ${support}` : '',
    priming ? `primed ${priming}` : '',
    dueOn ? `to hang on ${dueOn}` : '',
    varnish && varnish !== 'none' ? `${varnish} varnish` : '',
    toCome !== undefined ? `${counted(toCome, 'layer')} to come` : '',
    followsId !== undefined ? `after ${rows.paintings.get(followsId)?.title ?? 'an earlier one'}` : '',
    seenTo.length > 0 ? `seen to: ${seenTo.join('; ')}` : '',
    finishedAt ? 'finished' : '',
  ];
  return said.filter(Boolean).join('; ') || 'nothing said';
}

const canvas: Field<CanvasSent> = { name: 'canvas', says: ({ widthMm, heightMm }) => `${widthMm / 10} × ${heightMm / 10} cm` };
const tubes = (name: string): Field<string[]> => ({ name, says: (ids, rows) => listed(ids.map((id) => tubeName(id, rows))) });

/** Every field that a change may write, in a painter's words; what is missing here does not compile. */
export const WORDING: Wording = {
  'settings.change': {
    valueScale: { name: 'value scale', says: valueScaleName },
    warmBlue: { name: 'warm blue', says: (value) => (value === 'red-leaning' ? 'leaning to red' : 'leaning to green') },
    surround: word('grey around colours'),
    room: { name: 'the room', says: (value) => (value === 'light' ? 'by day' : 'at dusk') },
    knife: { name: 'your knife', says: (value) => `to ${Math.round(100 * value)} %` },
    dulling: { name: 'how colours are dulled', says: (value) => value },
    measure: { name: 'measured', says: (value) => ({ eye: 'by eye', parts: 'in parts', beads: 'as beads', scale: 'by scale' })[value] },
    amountMl: { name: 'amount usually mixed', says: mlText },
    stepLeast: figure('least step of a string'),
    stepMost: figure('largest step of a string'),
    copiesFolder: word('folder of copies'),
    copiesKept: figure('copies kept'),
    temperatureC: figure('how warm the room is', ' °C'),
    finishing: { name: 'list for a finished painting', says: listed },
  },
  'tube.change': {
    name: line('name', 80),
    maker: line('maker', 80),
    nozzleMm: figure('mouth', ' mm'),
    density: figure('weight of a ml', ' g'),
    drying: { name: 'how it dries', says: (value) => ({ fast: 'fast', medium: 'neither fast nor slow', slow: 'slowly' })[value] },
    lightfastness: word('lightfastness'),
    caution: word('caution'),
    sizeMl: figure('size', ' ml'),
    leftMl: figure('what is left', ' ml'),
    note: line('note', 2000),
  },
  'sitting.change': {
    paletteId: { name: 'palette', says: (id, rows) => rows.palettes.get(id)?.name ?? 'another palette' },
    light: word('light'),
    guests: tubes('tubes that joined'),
    note: line('note', 2000),
    closedAt: { name: 'over', says: (at) => moment(at) },
  },
  'area.change': {
    name: line('name', 80),
    outline: {
      name: 'outline',
      says: (points) => `drawn with ${counted(points.length, 'point')}`,
      drawn: (points) => [points.flatMap(({ x, y }) => [x, y])],
    },
  },
  'device.change': { name: line('name', 60) },
  'palette.change': {
    name: line('name', 80),
    tubeIds: tubes('tubes'),
    lightsWhiteId: { name: 'white for the lights', says: tubeName },
    mixedDarks: yes('darks are mixed'),
    guestIds: tubes('tubes for one sitting'),
  },
  'painting.change': {
    title: line('title', 120),
    paletteId: { name: 'palette', says: (id, rows) => rows.palettes.get(id)?.name ?? 'another palette' },
    ground: word('ground'),
    canvas,
    layer: figure('layer'),
    ceiling: figure('how bright it may get'),
    groundOf: { name: 'ground of a tube', says: ({ tubeId, wiped }, rows) => `${tubeName(tubeId, rows)}, ${wiped}` },
    habit: { name: 'how it is laid', says: (habit) => habit },
    valueOnly: yes('values alone from its pictures'),
    between: { name: 'values it keeps between', says: ({ darkest, lightest }) => `${darkest} to ${lightest}` },
    about: { name: 'what it is and when it hangs', says: aboutSays, parts: true },
    day: { name: 'plan for the day', says: ({ order, minutes }) => (minutes === undefined ? order : `${order}, ${minutes} minutes`) },
  },
  'reference.change': {
    name: line('name', 120),
    pictureId: { name: 'picture', says: () => 'this picture', picture: (id) => id },
    view: { name: 'how it is seen', says: viewSays, parts: VIEW },
    source: line('where it is from', 300),
    passing: {
      name: 'passing on',
      says: (value) => ({ ask: 'not said', mine: 'your own', free: 'free to pass on', no: 'for looking at only' })[value],
    },
  },
  'sample.change': {
    outline: {
      name: 'place',
      says: ({ x, y, points, more }) =>
        `at ${Math.round(x)}, ${Math.round(y)}${points ? ', drawn round' : ''}${more?.length ? `, with ${counted(more.length, 'place')} more` : ''}`,
    },
    seen: colour('seen'),
    paint: colour('to paint'),
    zone: word('zone'),
    thing: word('thing'),
    valueOnly: yes('value only'),
  },
  'pile.change': {
    name: line('name', 80),
    target: { name: 'colour wanted', says: ({ lab, kind }) => colourSays(lab) + TARGETS[kind], colour: ({ lab }) => labOfDto(lab) },
    plan: { name: 'recipe', says: planSays },
    ml: { name: 'size', says: mlText },
    string: { name: 'place in a string', says: ({ at }) => `number ${at + 1}` },
    purpose: { name: 'what it is for', says: purposeSays, parts: true },
    ...plainWords(PILE_FIELDS),
  },
  'card.change': {
    name: line('name', 120),
    note: line('note', 2000),
    dab: { name: 'dab', says: ({ lab, sight }) => `${colourSays(lab)}, by ${sight}`, colour: ({ lab }) => labOfDto(lab) },
    stands: {
      name: 'tubes that stand for its own',
      // A row keeps them by key, a change lists them.
      says: (stands, rows) => {
        const list = Array.isArray(stands)
          ? stands
          : Object.entries(stands as unknown as Record<string, string>).map(([key, tubeId]) => ({ key, tubeId }));
        return listed(list.map(({ key, tubeId }) => `${tubeName(tubeId, rows)} for ${key}`));
      },
    },
  },
  'set.change': {
    name: line('name', 120),
    note: line('note', 2000),
    cardIds: { name: 'cards', says: (ids, rows) => listed(ids.map((id) => rows.cards.get(id)?.name ?? 'a card')) },
  },
};

/** A field of an operation, by names that were only heard of. */
export const fieldOf = (operation: string, field: string): Field<unknown> | undefined =>
  (WORDING as Readonly<Record<string, Readonly<Record<string, Field<unknown>>>>>)[operation]?.[field];
