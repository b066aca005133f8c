/** Piles in an order in which each comes after those it is mixed from, dark to light otherwise. */
export function inWorkOrder<P extends { readonly id: string }>(
  piles: readonly P[],
  mothersOf: (id: string) => readonly string[],
  valueOf: (pile: P) => number,
): P[] {
  const left = new Map([...piles].sort((one, other) => valueOf(one) - valueOf(other)).map((pile) => [pile.id, pile]));
  const list: P[] = [];
  const put = (pile: P): void => {
    if (!left.delete(pile.id)) return;
    for (const mother of mothersOf(pile.id)) {
      const before = left.get(mother);
      if (before) put(before);
    }
    list.push(pile);
  };
  for (const pile of [...left.values()]) put(pile);
  return list;
}
