import {
  best,
  bookInSteps,
  givesWay,
  nearestKinds,
  reachOf,
  solve,
  trustIn,
  tubesThatReach,
  type Basis,
  type Book,
  type Lab,
  type Limits,
  type PaletteTube,
  type Recipe,
} from '@dusk/core';
import { expose } from 'comlink';
import { plain, type PlainAnswer, type PlainNearest, type PlainRecipe } from './recipe.ts';

/** A tube as it is laid out: its curves and what they rest on. */
export interface DeskTube extends PaletteTube {
  readonly basis: Basis;
}

let book: Book | undefined;
let tubes: ReadonlyMap<string, DeskTube> = new Map();

function withTrust(recipe: Recipe): PlainRecipe {
  const portions = Object.entries(recipe.flat).map(([id, parts]) => ({ paint: tubes.get(id)!, parts, basis: tubes.get(id)!.basis }));
  return plain(recipe, trustIn(portions).errorEstimate);
}

/** The book lives in this worker, so that neither making it nor looking things up holds the page. */
const desk = {
  /** Makes the book of a palette. `told` hears how far it is, 0–1. */
  open(laidOut: readonly DeskTube[], limits: Limits, told: (done: number) => void): number {
    let last = 0;
    tubes = new Map(laidOut.map((tube) => [tube.id, tube]));
    const making = bookInSteps(laidOut, limits);
    let step = making.next();
    for (; !step.done; step = making.next()) {
      if (step.value - last < 0.04) continue;
      last = step.value;
      told(last);
    }
    book = step.value;
    // The simulated studios of each tube are made now, so that the first recipe need not wait for them.
    for (const tube of laidOut) trustIn([{ paint: tube, parts: 1, basis: tube.basis }]);
    return book.count;
  },
  /** The best recipe for a target. */
  lookUp(target: Lab): PlainAnswer | undefined {
    if (!book) return undefined;
    const recipe = best(book, target);
    return { reach: reachOf(recipe), recipes: [withTrust(recipe)] };
  },
  /** The best recipe and really different ones. */
  solve(target: Lab): PlainAnswer | undefined {
    if (!book) return undefined;
    const { reach, recipes } = solve(book, target);
    return { reach, recipes: recipes.map((offer) => ({ ...withTrust(offer), betterAt: offer.betterAt })) };
  },
  /** For a target out of reach: the nearest in three ways, and the tubes of the rack that would help most. */
  nearest(target: Lab, rack: readonly PaletteTube[]): PlainNearest | undefined {
    if (!book) return undefined;
    const { byValue, byHue, overall } = nearestKinds(book, target);
    const kinds = [
      { by: 'in value', recipe: byValue },
      ...(byHue ? [{ by: 'in hue', recipe: byHue }] : []),
      { by: 'overall', recipe: overall },
    ];
    return {
      kinds: kinds.map(({ by, recipe }) => ({ by, recipe: withTrust(recipe), givesWay: givesWay(recipe) })),
      tubes: tubesThatReach([...tubes.values()], rack, target),
    };
  },
};

export type Desk = typeof desk;
expose(desk);
