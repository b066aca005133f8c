import {
  believed,
  CATALOGUE,
  COLOUR_NOTATIONS,
  colourFromInput,
  CraftError,
  finite,
  firstBeliefs,
  knifeOf,
  illuminantFromInput,
  labOf,
  limitsFromInput,
  layPalette,
  mixCurves,
  moved,
  partsInWords,
  readingOf,
  SIGHTS,
  reflectance,
  smoothSpectrum,
  type Basis,
  type Beliefs,
  type Illuminant,
  type KnownDoubts,
  type Lab,
  type PaintCurves,
  type Film,
  type Palette,
  type PaletteMix,
  type PaletteTube,
  type Reading,
  type Sight,
  type Portion,
  type Shift,
  type Viewing,
} from '@dusk/core';
import { fieldsOf } from './command.ts';
import { isOwn, ownKey, tubeOf } from './ownTubes.ts';

/** A generic pigment as a tube on the palette. */
export function tubeFromInput(slug: unknown): PaletteTube {
  return { id: slug as string, ...tubeOf(slug) };
}

export function tubesFromInput(palette: unknown, name = 'palette'): PaletteTube[] {
  if (!Array.isArray(palette)) throw new CraftError('palette', `${name} must be a list of tubes, as ["titanium-white", "yellow-ochre"].`);
  if (palette.length > 100) throw new CraftError('palette', `${name} holds ${palette.length} tubes; that is more than there are.`);
  return palette.map(tubeFromInput);
}

/** Parts of a tube and of white in a swatch. */
export function partsFromReading(parts: unknown): { readonly tube: number; readonly white: number } {
  const { tube, white = 0 } = fieldsOf(parts, ['tube', 'white']);
  return { tube: finite('parts', 'The parts of the tube', tube), white: finite('parts', 'The parts of white', white) };
}

/** What a tube of one’s own rests on; nothing of a typical one. */
const basisOf = (id: string): { readonly basis?: Basis } => (isOwn(id) ? { basis: 'fitted' } : {});

/** Tubes and their parts. */
export function partsFromInput(
  parts: unknown,
): { readonly id: string; readonly paint: PaintCurves; readonly parts: number; readonly basis?: Basis }[] {
  if (typeof parts !== 'object' || parts === null || Array.isArray(parts))
    throw new CraftError('parts', 'parts must be an object of tubes and numbers, as {"titanium-white": 9, "ultramarine-blue": 1}.');
  return Object.entries(parts).map(([id, n]) => ({
    id,
    ...basisOf(id),
    paint: tubeOf(id),
    parts: finite('parts', `The parts of ${id}`, n),
  }));
}

/** Tubes and their parts, which may be words: those lie in a range. */
export function uncertainPartsFromInput(
  parts: unknown,
): (Portion & { readonly id: string; readonly basis?: Basis; readonly range?: readonly [number, number] })[] {
  if (typeof parts !== 'object' || parts === null || Array.isArray(parts)) return partsFromInput(parts);
  return Object.entries(parts).map(([id, n]) =>
    typeof n === 'string' ? { id, ...basisOf(id), paint: tubeOf(id), ...partsInWords(n) } : partsFromInput({ [id]: n })[0]!,
  );
}

export const mixedFromInput = (parts: unknown): PaintCurves => mixCurves(partsFromInput(parts) satisfies Portion[]);

export const lightFromInput = (illuminant: unknown): Illuminant => (illuminant === undefined ? 'D65' : illuminantFromInput(illuminant));

/** A colour in any notation, or that of a mixture: {"parts": {…}}. */
export function seenFromInput(input: unknown, light: Illuminant = 'D65', name = 'The colour'): Lab {
  if (typeof input === 'object' && input !== null && 'parts' in input)
    return labOf(reflectance(mixedFromInput(fieldsOf(input, ['parts']).parts)), light);
  if (typeof input !== 'object' || input === null) throw new CraftError('colour', `${name} looks like {"hex": "#8a6b4f"}.`);
  return colourFromInput(fieldsOf(input, COLOUR_NOTATIONS), light).lab;
}

/** A target: a colour, a mixture, or one of these moved by steps: {"relative": {"to": …, "value": -0.25}}. */
export function targetFromInput(input: unknown, light: Illuminant): Lab {
  if (typeof input !== 'object' || input === null || !('relative' in input)) return seenFromInput(input, light, 'The target');
  const { relative } = fieldsOf(input, ['relative']);
  const { to, ...shift } = fieldsOf(relative, ['to', 'value', 'chroma', 'hue', 'temperature']);
  return moved(seenFromInput(to, light, 'What the target is relative to'), shift as Shift);
}

/** Piles that lie on the palette, by name: {"wall": {"titanium-white": 3, "yellow-ochre": 1}}. */
function pilesFromInput(input: unknown): PaletteMix[] {
  if (input === undefined) return [];
  if (typeof input !== 'object' || input === null || Array.isArray(input))
    throw new CraftError('palette', 'piles must be an object of names and parts.');
  return Object.entries(input).map(([id, given]) => {
    if (CATALOGUE.has(id) || isOwn(id)) throw new CraftError('palette', `A pile cannot be called ${JSON.stringify(id)}: a tube is.`);
    const parts = partsFromInput(given);
    const whole = parts.reduce((sum, p) => sum + p.parts, 0);
    return { id, ...mixCurves(parts), flat: Object.fromEntries(parts.map((p) => [p.id, p.parts / whole])) };
  });
}

/** The newest palette laid out: an array of targets on one palette needs one. */
let held: { readonly key: string; readonly palette: Palette } | undefined;

const isNumbers = (list: unknown, length: number): list is number[] =>
  Array.isArray(list) && list.length === length && list.every((v) => typeof v === 'number' && Number.isFinite(v));

/** Tubes and sightings that beliefs may speak of. */
const MOST_BELIEVED = 200;

/** Beliefs that an earlier correction answered with; first ones when there are none. */
export function beliefsFromInput(input: unknown): Beliefs {
  if (input === undefined) return firstBeliefs([]);
  const { ids, mean, covariance } = fieldsOf(input, ['ids', 'mean', 'covariance']);
  const named =
    Array.isArray(ids) && ids.length <= MOST_BELIEVED && ids.every((id) => typeof id === 'string') ? (ids as string[]) : undefined;
  const size = 3 * (named?.length ?? 0);
  if (
    !named ||
    new Set(named).size !== named.length ||
    !isNumbers(mean, size) ||
    !Array.isArray(covariance) ||
    covariance.length !== size ||
    !covariance.every((row) => isNumbers(row, size))
  )
    throw new CraftError('input', 'The beliefs are broken; give back what an earlier correction answered.');
  return { ids: named, mean, covariance: covariance as number[][] };
}

/** How a colour was read: by what, and in which sitting. */
export function readingFromInput(by: unknown, sitting: unknown): Reading | undefined {
  if (by === undefined) {
    if (sitting !== undefined) throw new CraftError('input', 'A sitting needs "by", so that it is known how it was read.');
    return undefined;
  }
  if (!SIGHTS.includes(by as Sight)) throw new CraftError('input', `"by" is one of ${SIGHTS.join(', ')}; it is ${JSON.stringify(by)}.`);
  if (sitting !== undefined && (typeof sitting !== 'string' || sitting.length > 100))
    throw new CraftError('input', 'sitting must be a name, as "tuesday".');
  return readingOf(by as Sight, `${by as Sight} ${(sitting as string | undefined) ?? ''}`.trim());
}

export const knifeFromInput = (knife: unknown): number | undefined =>
  knife === undefined ? undefined : knifeOf(finite('parts', 'knife', knife));

/** What is known of doubts: beliefs about tubes, and the knife. */
export function doubtsFromInput(beliefs: unknown, given: unknown): KnownDoubts & { readonly joint?: Beliefs } {
  const knife = knifeFromInput(given);
  return { ...(beliefs !== undefined && { joint: beliefsFromInput(beliefs) }), ...(knife !== undefined && { knife }) };
}

/** A film of paint over its ground. */
function filmFromInput(film: unknown): Film {
  const { thickness_um, ground } = fieldsOf(film, ['thickness_um', 'ground']);
  const below = colourFromInput(fieldsOf(ground, ['hex', 'lab', 'spectrum']));
  return {
    thicknessUm: finite('film', 'thickness_um', thickness_um),
    ground: below.spectrum ?? smoothSpectrum(below.lab),
  };
}

interface ViewingInput {
  readonly illuminant?: unknown;
  readonly film?: unknown;
  readonly medium?: unknown;
  readonly sunk?: unknown;
  readonly pick_up?: unknown;
}

/** Where and how paint is looked at: light, film over a ground, medium, sinking, wet paint picked up. */
export function viewingFromInput({ illuminant, film, medium, sunk, pick_up }: ViewingInput): Viewing {
  const laying = {
    ...(medium !== undefined && { medium: finite('film', 'medium', medium) }),
    ...(sunk !== undefined && { sunk: finite('film', 'sunk', sunk) }),
    ...(film !== undefined && film !== null && { film: filmFromInput(film) }),
  };
  const light = lightFromInput(illuminant);
  if (pick_up === undefined) return { light, laying };
  const { below, share } = fieldsOf(pick_up, ['below', 'share']);
  return { light, laying, pickUp: { below: mixedFromInput(below), share: finite('film', 'share', share) } };
}

interface PaletteInput extends ViewingInput {
  readonly palette?: unknown;
  readonly limits?: unknown;
  readonly piles?: unknown;
  readonly beliefs?: unknown;
}

/** The palette's tubes as they are believed to be, or as they typically are. */
function believedTubes(palette: unknown, beliefs: unknown): PaletteTube[] {
  const tubes = tubesFromInput(palette);
  if (beliefs === undefined) return tubes;
  const known = beliefsFromInput(beliefs);
  return tubes.map((t): PaletteTube => (known.ids.includes(t.id) ? { ...t, ...believed(t, known, t.id), basis: 'learnt' } : t));
}

export function paletteFromInput(input: PaletteInput): Palette {
  const { palette, limits, piles, beliefs } = input;
  const { illuminant, film, medium, sunk, pick_up } = input;
  const key = JSON.stringify([ownKey(), palette, limits, piles, beliefs, illuminant, film, medium, sunk, pick_up]);
  if (held?.key !== key) {
    const tubes = believedTubes(palette, beliefs);
    held = { key, palette: layPalette(tubes, limitsFromInput(limits), viewingFromInput(input), pilesFromInput(piles)) };
  }
  return held.palette;
}
