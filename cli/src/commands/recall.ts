import { CATALOGUE, finite, recall as recallFrom } from '@dusk/core';
import { fieldsOf, rounded, type Command } from '../command.ts';
import { seenFromInput, tubeFromInput, tubesFromInput } from '../read.ts';
import { writtenShares } from '../write.ts';

export const recall: Command = {
  name: 'recall',
  summary: 'tubes half remembered and how it looked → the likely missing tube',
  help: `  echo '{"known":["ultramarine-blue"],"candidates":["burnt-sienna","burnt-umber","transparent-oxide-red"],"seen":{"lab":[14,0,-2]},
         "tint":{"seen":{"lab":[52,-1,-6]},"white":"titanium-white","parts":9}}' | npx dusk recall
    → {"suspects":[{"id":"burnt-umber","likelihood":0.8,"shares":{…},"deltaE00":0.3,"tintDeltaE00":0.5},…],"certain":true,"advice":"…"}

Without "candidates" every generic pigment may be the one. "tint" is optional: a dark alone can often not tell.`,
  run: (input) => {
    const { known, candidates, seen, tint } = fieldsOf(input, ['known', 'candidates', 'seen', 'tint']);
    const pale = tint === undefined ? undefined : fieldsOf(tint, ['seen', 'white', 'parts']);
    const { suspects, certain, advice } = recallFrom({
      known: tubesFromInput(known, 'known'),
      candidates: tubesFromInput(candidates ?? [...CATALOGUE.keys()], 'candidates'),
      seen: seenFromInput(seen),
      ...(pale && {
        tint: {
          lab: seenFromInput(pale.seen),
          white: tubeFromInput(pale.white ?? 'titanium-white'),
          parts: finite('parts', 'The parts of white', pale.parts),
        },
      }),
    });
    return {
      suspects: suspects.slice(0, 12).map((s) => ({
        id: s.id,
        likelihood: rounded(s.likelihood),
        shares: writtenShares(s.shares),
        deltaE00: rounded(s.deltaE00),
        ...(s.tintDeltaE00 !== undefined && { tintDeltaE00: rounded(s.tintDeltaE00) }),
      })),
      certain,
      advice,
    };
  },
};
