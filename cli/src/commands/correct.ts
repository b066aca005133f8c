import {
  amountFromInput,
  correct as correctPile,
  CraftError,
  labToHex,
  measureFromInput,
  SIGHTS,
  tellAdded,
  type Correction,
  type MeasuredDose,
  type Measure,
  type Stage,
} from '@dusk/core';
import { fieldsOf, rounded, saidYes, type Command } from '../command.ts';
import {
  beliefsFromInput,
  knifeFromInput,
  partsFromInput,
  readingFromInput,
  seenFromInput,
  targetFromInput,
  tubesFromInput,
} from '../read.ts';
import { handlingOf, writtenColour, writtenDoses } from '../write.ts';

interface Story {
  readonly mixed?: unknown;
  readonly seen?: unknown;
  readonly stages?: unknown;
  readonly by?: unknown;
  readonly sitting?: unknown;
  readonly knife?: unknown;
}

function stagesFromInput({ mixed, seen, stages, by, sitting, knife: given }: Story): Stage[] {
  const knife = knifeFromInput(given);
  const all = readingFromInput(by, sitting);
  const how = (reading = all) => ({ ...(reading && { reading }), ...(knife !== undefined && { knife }) });
  if (stages === undefined) return [{ additions: partsFromInput(mixed), observed: seenFromInput(seen, 'D65', 'What was seen'), ...how() }];
  if (!Array.isArray(stages) || stages.length === 0) throw new CraftError('parts', 'stages must be a list of {"add":{…},"seen":{…}}.');
  return stages.map((stage) => {
    const { add, seen: then, by: own, sitting: when } = fieldsOf(stage, ['add', 'seen', 'by', 'sitting']);
    return {
      additions: partsFromInput(add),
      ...(then !== undefined && { observed: seenFromInput(then) }),
      ...how(readingFromInput(own, when)),
    };
  });
}

const writtenDose = ({ id, parts, letDown }: MeasuredDose) => ({
  ...(letDown ? { let_down: id, in: letDown.base, ratio: letDown.ratio } : { id }),
  parts: rounded(parts),
});

/** Additions in mixing order, in one way of measuring. */
const told = ({ steps, growth }: Correction['ways'][number], pileMl: number, parts: number, measure: Measure) =>
  steps.map((step) => ({
    ...writtenDose(step),
    amount: tellAdded((step.parts * pileMl) / parts, handlingOf(step.id), measure, pileMl * growth, pileMl / parts),
    after: labToHex(step.lab),
  }));

export const correct: Command = {
  name: 'correct',
  summary: 'what was mixed, how it looks, and the target → what to add',
  help: `Paint cannot be taken out, so only additions are found. What was seen also corrects what is believed of the tubes.

  echo '{"palette":["titanium-white","yellow-ochre","burnt-umber","ultramarine-blue"],"mixed":{"titanium-white":6,"burnt-umber":2},
         "seen":{"hex":"#8f7f6d"},"target":{"hex":"#8a6b4f"}}' | npx dusk correct
    → {"off":7.9,"reach":"in","advice":"add","add":{"yellow-ochre":1.9},"growth":1.24,"lab":[…],"hex":"…","after":1.1,"beliefs":{…}}

"stages":[{"add":{…},"seen":{…}},…] tells a longer story than "mixed" and "seen". "beliefs" of an earlier answer may be
given back, with whatever palette. "by" (${SIGHTS.join(', ')}) says how it was read, here or in a stage, and "sitting" names
what shares one light: readings of one sitting are off alike, which is learnt over its piles; "off" is as it was read,
"believed_off" without that. "knife" (0.1) is the share a dose may be off by. "reach" says whether that comes to the target, "gives_way" what does not, and "anew" whether these tubes reach it from the start.
The pile is 4 ml unless "amount_ml" says so: no dose is smaller than a speck of the knife's tip; what is too little comes
let down, and "measured" says how; "add" counts its tubes. "measure" (eye, parts, beads, scale): "told" tells each addition
that way, in mixing order, with the colour after it. "strange" is there where what was seen is further off than tubes and knife can be. "insists" (true): the painter says that it is off, and something is added. "advice": leave it, add, or start again with part of it ("part": how much to keep, and what to add to that).`,
  run: (input) => {
    const known = [
      'palette',
      'mixed',
      'seen',
      'stages',
      'by',
      'sitting',
      'knife',
      'target',
      'beliefs',
      'amount_ml',
      'measure',
      'insists',
    ] as const;
    const { palette, target, beliefs, amount_ml, measure, insists, ...story } = fieldsOf(input, known);
    const tubes = tubesFromInput(palette);
    const stages = stagesFromInput(story);
    const parts = stages.reduce((sum, { additions }) => sum + additions.reduce((own, dose) => own + dose.parts, 0), 0);
    const pileMl = amountFromInput(amount_ml);
    const how = measure === undefined ? undefined : measureFromInput(measure);
    const answer = correctPile({
      palette: tubes,
      stages,
      target: targetFromInput(target, 'D65'),
      beliefs: beliefsFromInput(beliefs),
      partMl: pileMl / parts,
      insists: saidYes('insists', insists),
    });
    return {
      ...(answer.isStrange && {
        strange: 'Further off than these tubes and a knife can be: is it this pile, in this light? It teaches little.',
      }),
      off: rounded(answer.off),
      believed_off: rounded(answer.believedOff),
      reach: answer.reach,
      advice: answer.advice,
      add: writtenDoses(answer.add),
      ...(answer.measured.some((dose) => dose.letDown) && { measured: answer.measured.map(writtenDose) }),
      ...(how && answer.ways[0] && { told: told(answer.ways[0], pileMl, parts, how) }),
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
