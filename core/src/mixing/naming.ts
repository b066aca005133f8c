import { isHeap, type Heap, type Leaf, type Source } from './mixture.ts';

/**
 * What a heap that is mixed first is called: a let-down, one part of something strong in much of something
 * else, after what is strong in it; a body, mixed strong to be let into white, after what is most of it.
 * @param nameOf what a tube or a pile is called
 */
export function heapName({ ingredients }: Heap, nameOf: (leaf: Leaf) => string): string {
  const called = (source: Source): string => (isHeap(source) ? 'the body' : nameOf(source));
  const strong = ingredients.find(({ parts }) => parts === 1);
  if (ingredients.length === 2 && strong && ingredients.some(({ parts }) => parts > 2)) return `${called(strong)}, let down`;
  const [most, ...others] = [...ingredients].sort((a, b) => b.parts - a.parts);
  if (others.length === 0) return called(most!);
  return `Body of ${called(most!)} and ${others.length === 1 ? called(others[0]!) : `${others.length} more`}`;
}
