import type { Lab } from '../colour/spaces.ts';
import { deltaE00 } from '../colour/difference.ts';
import { filmOf, type LaidSo, type LaidWith } from '../landing/laid.ts';
import { CATALOGUE } from '../paint/catalogue.ts';
import type { Drying } from '../paint/pigments/definition.ts';
import type { Layer, LayerPart, MediumKind } from './drying.ts';

/** What a painter calls it, and what it is to a film. */
const MEDIUM: Readonly<Partial<Record<LaidWith, MediumKind>>> = { oil: 'linseed', medium: 'resin', 'alkyd medium': 'alkyd' };
/** Share of what is laid that evaporates. */
const WASH_THINNED = 0.6;
const THINNED = 0.35;
/** Paint of which nothing is known: neither fast nor slow. */
const UNKNOWN: LayerPart = { parts: 1, drying: 'medium', oil: 45, density: 1.5 };
const OILS: ReadonlyMap<string, number> = new Map([...CATALOGUE.values()].map(({ slug, oil }) => [slug, oil]));

/** A tube's share of a layer, by what its pigment usually is. */
export const layerPartOf = (
  { id, pigment, drying, density }: { readonly id: string; readonly pigment: string; readonly drying: Drying; readonly density: number },
  share: number,
): LayerPart => ({ id, parts: share, drying, density, oil: OILS.get(pigment) ?? UNKNOWN.oil });

/** A layer as it was said in words: its film, its medium, what evaporates. Paint that is not known is taken for a usual one. */
export function layerAsLaid(so: LaidSo, paint: readonly LayerPart[], at: number, temperatureC?: number): Layer {
  const { thicknessUm, medium } = filmOf(so);
  const kind = so.with && MEDIUM[so.with];
  return {
    paint: paint.some(({ parts }) => parts > 0) ? paint : [UNKNOWN],
    ...(kind && medium > 0 && { medium: { kind, share: medium } }),
    thinner: so.how === 'wash' ? WASH_THINNED : so.with === 'thinner' ? THINNED : 0,
    filmUm: thicknessUm,
    at,
    ...(temperatureC !== undefined && { temperatureC }),
  };
}

const ORDER: readonly Drying[] = ['fast', 'medium', 'slow'];

/** A tube by how it looks and dries. */
export interface DryingTube {
  readonly id: string;
  readonly drying: Drying;
  readonly masstone: Lab;
  readonly tint: Lab;
}

/** The tube that dries sooner than another and is most like it, straight and with white; and how far off, ΔE00. */
export function fasterLike(tube: DryingTube, rack: readonly DryingTube[]): { readonly id: string; readonly deltaE00: number } | undefined {
  const off = (one: DryingTube): number => Math.max(deltaE00(tube.masstone, one.masstone), deltaE00(tube.tint, one.tint));
  return rack
    .filter(({ id, drying }) => id !== tube.id && ORDER.indexOf(drying) < ORDER.indexOf(tube.drying))
    .map((one) => ({ id: one.id, deltaE00: off(one) }))
    .sort((one, other) => one.deltaE00 - other.deltaE00)[0];
}

/** What is seen to before a painting is finished, where a painter has no list of their own. */
export const FINISHING = [
  'Eyes half closed: do the big values hold?',
  'The lightest light and the darkest dark are where they are meant',
  'Edges: sharp where it counts, lost where it does not',
  'Nothing is there that the picture does without',
  'Nothing sunk is left that should shine',
] as const;
