import { believed, labOf, mixCurves, PART_WORDS, pickedUp, readColour, reflectance, spectrumToJson } from '@dusk/core';
import { fieldsOf, rounded, roundedList, saidYes, type Command } from '../command.ts';
import { doubtsFromInput, uncertainPartsFromInput, viewingFromInput } from '../read.ts';
import { errorEstimate } from '../write.ts';

export const mix: Command = {
  name: 'mix',
  summary: 'parts of tubes → the colour they give',
  help: `Parts by volume of tube paint; thick and glossy unless "film", "medium" or "sunk" says otherwise.

  echo '{"parts":{"titanium-white":9,"ultramarine-blue":1}}' | npx dusk mix
    → {"lab":[L,a,b],"lch":[L,C,h],"value":v,"temperature":t,"hex":"#rrggbb","spectrum":{"start":380,"step":10,"r":[…]}}
  echo '{"parts":{"quinacridone-rose":1},"film":{"thickness_um":8,"ground":{"lab":[96,0,2]}},"medium":0.3}' | npx dusk mix

Options: "illuminant" (D65, D50, A, C, F5, F8, F10, LED), "film" (thickness_um over ground: hex, lab or spectrum),
"medium" (share of volume 0–1), "sunk" (0 glossy to 1 matt), "pick_up" ({"below":{"burnt-umber":1},"share":0.1}: wet paint
taken up from below), "trust" (true: "errorEstimate", the ΔE00 that nine of ten such
mixtures from real tubes stay within), "beliefs" (of an earlier dusk correct: the tubes as they are believed to be), "knife" (0.1:
the share a dose may be off by, counted into the estimate). Parts may be words (${PART_WORDS.join(', ')}): uncertain, and counted into the estimate.`,
  run: (input) => {
    const known = ['parts', 'illuminant', 'film', 'medium', 'sunk', 'pick_up', 'trust', 'beliefs', 'knife'] as const;
    const { parts, trust, beliefs, knife, ...where } = fieldsOf(input, known);
    const { light, laying, pickUp } = viewingFromInput(where);
    const doubts = doubtsFromInput(beliefs, knife);
    const portions = uncertainPartsFromInput(parts).map((p) => ({
      ...p,
      paint: doubts.joint ? believed(p.paint, doubts.joint, p.id) : p.paint,
    }));
    const pile = mixCurves(portions);
    const r = reflectance(pickUp ? pickedUp(pile, pickUp.below, pickUp.share) : pile, laying);
    const reading = readColour({ lab: labOf(r, light), spectrum: r }, light);
    return {
      lab: roundedList(reading.lab),
      lch: roundedList(reading.lch),
      value: rounded(reading.value),
      temperature: rounded(reading.temperature),
      hex: reading.hex,
      spectrum: spectrumToJson(r),
      ...(saidYes('trust', trust) && { errorEstimate: errorEstimate(portions, doubts, laying) }),
    };
  },
};
