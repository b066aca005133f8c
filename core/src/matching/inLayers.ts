import type { Lab } from '../colour/spaces.ts';
import { surfaceOf, MOST_LAID, type Landing } from '../landing/laid.ts';
import type { Palette } from '../laying/palette.ts';
import { CATALOGUE } from '../paint/catalogue.ts';
import { reflectance } from '../paint/mix.ts';
import { findPlans } from './find.ts';
import type { InSteps } from './inSteps.ts';
import { recipeOf, type Recipe } from './recipe.ts';
import { reachOf } from './passing.ts';

/** What would do where one layer does not: so many of it, or a layer of white beneath it first. */
export interface HowItWould {
  readonly layers?: number;
  readonly whiteFirst?: boolean;
  /** How near one layer comes, ΔE00. */
  readonly oneLayer: number;
}

/** A layer of white that covers, µm. */
const WHITE_UM = 120;
/** Nearer than one layer by so much, ΔE00, or it is not worth another; and how near the nearest passes for it. */
const WORTH_A_LAYER = 1;
const AS_NEAR = 0.5;

/**
 * How a target would be come nearer to where one layer does not reach it: in how many layers of one pile, or over white.
 * @param lay lays the palette out for where its paint lands
 */
export function* inLayersInSteps(lay: (landing: Landing) => Palette, landing: Landing, target: Lab): InSteps<HowItWould> {
  const nearest = (there: Landing): Recipe => {
    const palette = lay(there);
    return recipeOf(palette, findPlans(palette, { target, hold: 'all' }, 1)[0]!, target);
  };
  const first = nearest(landing);
  const oneLayer = first.deltaE00;
  if (reachOf(first) === 'in') return { oneLayer };
  const apart: number[] = [];
  for (let layers = 2; layers <= MOST_LAID; layers++) {
    yield (layers - 1) / (MOST_LAID + 1);
    const found = nearest({ ...landing, so: { ...landing.so, layers } });
    apart.push(found.deltaE00);
    if (reachOf(found) === 'in') break;
  }
  yield MOST_LAID / (MOST_LAID + 1);
  const inLayers = Math.min(...apart);
  const layers = 2 + apart.findIndex((one) => one <= inLayers + AS_NEAR);
  const white = {
    dry: reflectance(CATALOGUE.get('titanium-white')!, { film: { thicknessUm: WHITE_UM, ground: surfaceOf(landing.below) } }),
  };
  const overWhite = nearest({ ...landing, below: white }).deltaE00;
  return {
    oneLayer,
    ...(inLayers < oneLayer - WORTH_A_LAYER && { layers }),
    ...(overWhite < Math.min(oneLayer, inLayers) - WORTH_A_LAYER && { whiteFirst: true }),
  };
}
