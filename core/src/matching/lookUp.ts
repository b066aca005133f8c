import type { Book } from './book.ts';
import { boundFrom } from './nearness.ts';
import { NodeQueue } from './nodeQueue.ts';
import { valueCost, type Ranking } from './ranking.ts';

/** A recipe found in the book and its ranking score. */
export interface Found {
  readonly recipe: number;
  readonly score: number;
}

/** The best recipes met so far, one of each set of tubes. */
class Shortlist {
  /** A recipe must score below this to be taken. */
  worst = Infinity;
  readonly held: { recipe: number; score: number; kin: number }[] = [];

  constructor(private readonly most: number) {}

  offer(recipe: number, score: number, kin: number): void {
    const same = this.held.findIndex((h) => h.kin === kin);
    if (same >= 0) {
      if (this.held[same]!.score <= score) return;
      this.held.splice(same, 1);
    }
    let at = this.held.length;
    while (at > 0 && this.held[at - 1]!.score > score) at--;
    this.held.splice(at, 0, { recipe, score, kin });
    if (this.held.length > this.most) this.held.pop();
    if (this.held.length === this.most) this.worst = this.held[this.most - 1]!.score;
  }
}

/**
 * The best recipe of each of the `most` best sets of tubes, best first. Exhaustive: boxes are
 * opened in the order of what they can hold at best (Hjaltason and Samet 1999), until none can
 * hold anything better than what was found.
 * @param allowed for each of the book's sets whether it may be used, 1 or 0
 */
export function lookUp(book: Book, ranking: Ranking, most = 1, allowed?: Uint8Array): Found[] {
  const { boxes, effort: leastEffort, firstLeaf, leaf } = book.tree;
  const { L, a, b, value, effort, setOf, kinOf, count } = book;
  const { deltaE, target } = ranking;
  const bound = boundFrom(ranking);
  const list = new Shortlist(most);
  const queue = new NodeQueue();

  const open = (node: number): void => {
    if (leastEffort[node] === Infinity) return;
    const effort = leastEffort[node]!;
    const least = bound(boxes, node * 6, list.worst - effort) + effort;
    if (least < list.worst) queue.push(node, least);
  };
  const search = (node: number): void => {
    const first = (node - firstLeaf) * leaf;
    const end = Math.min(count, first + leaf);
    for (let i = first; i < end; i++) {
      if (allowed && allowed[setOf[i]!] === 0) continue;
      const cheap = valueCost(ranking, value[i]!) + effort[i]!;
      // S_L of CIEDE2000 stays below 1.75.
      if (cheap + Math.abs(L[i]! - target[0]) / 1.75 >= list.worst) continue;
      const score = deltaE(L[i]!, a[i]!, b[i]!) + cheap;
      if (score < list.worst) list.offer(i, score, kinOf[setOf[i]!]!);
    }
  };

  open(0);
  while (queue.size > 0 && queue.least < list.worst) {
    const node = queue.pop();
    if (node >= firstLeaf) search(node);
    else {
      open(2 * node + 1);
      open(2 * node + 2);
    }
  }
  return list.held.map(({ recipe, score }) => ({ recipe, score }));
}

/** The best recipe by trying every one, for tests and the benchmark. */
export function tryAll(book: Book, ranking: Ranking, allowed?: Uint8Array): Found {
  let recipe = -1;
  let best = Infinity;
  for (let i = 0; i < book.count; i++) {
    if (allowed && allowed[book.setOf[i]!] === 0) continue;
    const score = ranking.deltaE(book.L[i]!, book.a[i]!, book.b[i]!) + valueCost(ranking, book.value[i]!) + book.effort[i]!;
    if (score < best) {
      best = score;
      recipe = i;
    }
  }
  return { recipe, score: best };
}
