import { best, makeBook, reachOf, solve, type Book, type Lab, type Limits, type PaletteTube } from '@dusk/core';
import { expose } from 'comlink';
import { plain, type PlainAnswer } from './recipe.ts';

let book: Book | undefined;

/** The book lives in this worker, so that neither making it nor looking things up holds the page. */
const desk = {
  /** Makes the book of a palette. `told` hears how far it is, 0–1. */
  open(tubes: readonly PaletteTube[], limits: Limits, told: (done: number) => void): number {
    let last = 0;
    book = makeBook(tubes, limits, 'D65', (done) => {
      if (done - last < 0.04 && done < 1) return;
      last = done;
      told(done);
    });
    return book.count;
  },
  /** The best recipe for a target. */
  lookUp(target: Lab): PlainAnswer | undefined {
    if (!book) return undefined;
    const recipe = best(book, target);
    return { reach: reachOf(recipe), recipes: [plain(recipe)] };
  },
  /** The best recipe and really different ones. */
  solve(target: Lab): PlainAnswer | undefined {
    if (!book) return undefined;
    const { reach, recipes } = solve(book, target);
    return { reach, recipes: recipes.map(plain) };
  },
};

export type Desk = typeof desk;
expose(desk);
