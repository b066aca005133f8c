import { isHeap, type Heap, type Leaf, type Source } from './mixture.ts';

/**
 * What a heap that is mixed first is called: a let-down, one part of something strong in several of a
 * pale paint, after what is strong in it; a body, a colour mixed strong, after what is most of it.
 * @param nameOf what a tube or a pile is called
 * @param isPale whether a tube or a pile is a paint that others are let down with
 */
export function heapName({ ingredients }: Heap, nameOf: (leaf: Leaf) => string, isPale: (leaf: Leaf) => boolean): string {
  const called = (source: Source): string => (isHeap(source) ? 'the first heap' : nameOf(source));
  const strong = ingredients.find(({ parts }) => parts === 1);
  const base = ingredients.find((ingredient) => ingredient !== strong && ingredient.parts > 2);
  if (ingredients.length === 2 && strong && base && !isHeap(base) && isPale(base))
    return isHeap(strong) ? 'Body, let down' : `${nameOf(strong)}, let down`;
  const [most, ...others] = [...ingredients].sort((a, b) => b.parts - a.parts);
  if (others.length === 0) return called(most!);
  return `Body of ${called(most!)} and ${others.length === 1 ? called(others[0]!) : `${others.length} more`}`;
}
