import { CraftError, mixingPath } from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { partsFromInput } from '../read.ts';
import { writtenColour } from '../write.ts';

export const path: Command = {
  name: 'path',
  summary: 'a recipe → the order of additions, with the pile’s colour after each',
  help: `Starts with the plentiful and weak, creeps up with the strong, and goes past the target in value no more than it must.

  echo '{"parts":{"titanium-white":8,"yellow-ochre":3,"phthalo-blue":0.2}}' | npx dusk path
    → {"steps":[{"add":{"titanium-white":8},"lab":[…],"hex":"#f7f6f0","value":9.7},…],"overshoot":0.03}

"from" names the tube to start from.`,
  run: (input) => {
    const { parts, from } = fieldsOf(input, ['parts', 'from']);
    const portions = partsFromInput(parts);
    const start = from === undefined ? undefined : portions.findIndex((p) => p.id === from);
    if (start === -1) throw new CraftError('parts', `The recipe has no ${JSON.stringify(from)} to start from.`);
    const bad = portions.find((p) => p.parts < 0);
    if (bad) throw new CraftError('parts', `Parts cannot be negative; those of ${bad.id} are ${bad.parts}.`);
    const { steps, overshoot } = mixingPath(portions, start);
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
