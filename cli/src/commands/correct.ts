import { correct as correctPile, CraftError, type MeasuredDose, type Stage } from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { beliefsFromInput, partsFromInput, seenFromInput, targetFromInput, tubesFromInput } from '../read.ts';
import { writtenColour, writtenDoses } from '../write.ts';

function stagesFromInput(mixed: unknown, seen: unknown, stages: unknown): Stage[] {
  if (stages === undefined) return [{ additions: partsFromInput(mixed), observed: seenFromInput(seen, 'D65', 'What was seen') }];
  if (!Array.isArray(stages) || stages.length === 0) throw new CraftError('parts', 'stages must be a list of {"add":{…},"seen":{…}}.');
  return stages.map((stage) => {
    const { add, seen: then } = fieldsOf(stage, ['add', 'seen']);
    return { additions: partsFromInput(add), ...(then !== undefined && { observed: seenFromInput(then) }) };
  });
}

const writtenDose = ({ id, parts, letDown }: MeasuredDose) => ({
  ...(letDown ? { let_down: id, in: letDown.base, ratio: letDown.ratio } : { id }),
  parts: rounded(parts),
});

export const correct: Command = {
  name: 'correct',
  summary: 'what was mixed, how it looks, and the target → what to add',
  help: `Paint cannot be taken out, so only additions are found. What was seen also corrects what is believed of the tubes.

  echo '{"palette":["titanium-white","yellow-ochre","burnt-umber","ultramarine-blue"],"mixed":{"titanium-white":6,"burnt-umber":2},
         "seen":{"hex":"#8f7f6d"},"target":{"hex":"#8a6b4f"}}' | npx dusk correct
    → {"off":7.9,"reach":"in","advice":"add","add":{"yellow-ochre":1.9},"growth":1.24,"lab":[…],"hex":"…","after":1.1,"beliefs":{…}}

"stages":[{"add":{…},"seen":{…}},…] tells a longer story than "mixed" and "seen". "beliefs" of an earlier answer may be
given back. "reach" says whether that comes to the target, "gives_way" what does not, and "anew" whether these tubes reach it from the start.
No dose is smaller than an eighth of a part: what is too little comes let down, and "measured" says how; "add" counts its tubes. "advice": leave it, add, or start again with part of it ("part": how much to keep, and what to add to that).`,
  run: (input) => {
    const { palette, mixed, seen, stages, target, beliefs } = fieldsOf(input, ['palette', 'mixed', 'seen', 'stages', 'target', 'beliefs']);
    const tubes = tubesFromInput(palette);
    const answer = correctPile({
      palette: tubes,
      stages: stagesFromInput(mixed, seen, stages),
      target: targetFromInput(target, 'D65'),
      beliefs: beliefsFromInput(
        beliefs,
        tubes.map((t) => t.id),
      ),
    });
    return {
      off: rounded(answer.off),
      reach: answer.reach,
      advice: answer.advice,
      add: writtenDoses(answer.add),
      ...(answer.measured.some((dose) => dose.letDown) && { measured: answer.measured.map(writtenDose) }),
      growth: rounded(answer.growth),
      ...writtenColour(answer.lab),
      after: rounded(answer.mismatchAfter),
      ...(answer.givesWay.length > 0 && { gives_way: answer.givesWay }),
      ...(answer.anew && { anew: answer.anew }),
      ...(answer.part && { part: { keep: rounded(answer.part.keep), add: writtenDoses(answer.part.add) } }),
      beliefs: answer.beliefs,
    };
  },
};
