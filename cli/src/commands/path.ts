import { CraftError, mixCurves, mixingPath } from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { partsFromInput } from '../read.ts';
import { writtenColour } from '../write.ts';

export const path: Command = {
  name: 'path',
  summary: 'a recipe → the order of additions, with the pile’s colour after each',
  help: `Starts with the plentiful and weak, creeps up with the strong, and goes past the target in value no more than it must.

  echo '{"parts":{"titanium-white":8,"yellow-ochre":3,"phthalo-blue":0.2}}' | npx dusk path
    → {"steps":[{"add":{"titanium-white":8},"lab":[…],"hex":"#f7f6f0","value":9.7},…],"overshoot":0.03}

"from" names the tube to start from, or the pile that is there: {"titanium-white":4}.`,
  run: (input) => {
    const { parts, from } = fieldsOf(input, ['parts', 'from']);
    const portions = partsFromInput(parts);
    const bad = portions.find((p) => p.parts < 0);
    if (bad) throw new CraftError('parts', `Parts cannot be negative; those of ${bad.id} are ${bad.parts}.`);
    const { list, start } = startingFrom(portions, from);
    const { steps, overshoot } = mixingPath(list, start);
    return {
      steps: steps.map(({ add, lab, value }) => ({
        add: { [add.id]: rounded(add.parts, 6) },
        ...writtenColour(lab),
        value: rounded(value),
      })),
      overshoot: rounded(overshoot),
    };
  },
};

type Portions = ReturnType<typeof partsFromInput>;

/** What is left to add when a tube, or a pile of some of the parts, is there already. */
function startingFrom(portions: Portions, from: unknown): { list: Portions; start: number | undefined } {
  if (from === undefined) return { list: portions, start: undefined };
  if (typeof from === 'string') {
    const start = portions.findIndex((p) => p.id === from);
    if (start < 0) throw new CraftError('parts', `The recipe has no ${JSON.stringify(from)} to start from.`);
    return { list: portions, start };
  }
  const there = partsFromInput(from);
  const left = portions.map((p) => ({ ...p, parts: p.parts - (there.find((t) => t.id === p.id)?.parts ?? 0) }));
  const over = left.find((p) => p.parts < -1e-9) ?? there.find((t) => portions.every((p) => p.id !== t.id));
  if (over) throw new CraftError('parts', `The pile holds more ${over.id} than the recipe asks; paint cannot be taken out.`);
  const pile = { id: 'the pile', paint: mixCurves(there), parts: there.reduce((sum, t) => sum + t.parts, 0) };
  return { list: [pile, ...left.filter((p) => p.parts > 1e-9)], start: 0 };
}
