import {
  colourFromInput,
  finite,
  labOf,
  mixCurves,
  PART_WORDS,
  readColour,
  trustIn,
  reflectance,
  smoothSpectrum,
  spectrumToJson,
  type Film,
} from '@dusk/core';
import { fieldsOf, rounded, roundedList, type Command } from '../command.ts';
import { lightFromInput, uncertainPartsFromInput } from '../read.ts';

function filmFromInput(film: unknown): Film {
  const { thickness_um, ground } = fieldsOf(film, ['thickness_um', 'ground']);
  const below = colourFromInput(fieldsOf(ground, ['hex', 'lab', 'spectrum']));
  return {
    thicknessUm: finite('film', 'thickness_um', thickness_um),
    ground: below.spectrum ?? smoothSpectrum(below.lab),
  };
}

export const mix: Command = {
  name: 'mix',
  summary: 'parts of tubes → the colour they give',
  help: `Parts by volume of tube paint; thick and glossy unless "film", "medium" or "sunk" says otherwise.

  echo '{"parts":{"titanium-white":9,"ultramarine-blue":1}}' | npx dusk mix
    → {"lab":[L,a,b],"lch":[L,C,h],"value":v,"temperature":t,"hex":"#rrggbb","spectrum":{"start":380,"step":10,"r":[…]}}
  echo '{"parts":{"quinacridone-rose":1},"film":{"thickness_um":8,"ground":{"lab":[96,0,2]}},"medium":0.3}' | npx dusk mix

Options: "illuminant" (D65, D50, A, C, F5, F8, F10, LED), "film" (thickness_um over ground: hex, lab or spectrum),
"medium" (share of volume 0–1), "sunk" (0 glossy to 1 matt), "trust" (true: "errorEstimate", the ΔE00 that nine of ten such
mixtures from real tubes stay within). Parts may be words (${PART_WORDS.join(', ')}): uncertain, and counted into the estimate.`,
  run: (input) => {
    const { parts, illuminant, film, medium, sunk, trust } = fieldsOf(input, ['parts', 'illuminant', 'film', 'medium', 'sunk', 'trust']);
    const light = lightFromInput(illuminant);
    const portions = uncertainPartsFromInput(parts);
    const laying = {
      ...(medium !== undefined && { medium: finite('film', 'medium', medium) }),
      ...(sunk !== undefined && { sunk: finite('film', 'sunk', sunk) }),
      ...(film !== undefined && film !== null && { film: filmFromInput(film) }),
    };
    const r = reflectance(mixCurves(portions), laying);
    const reading = readColour({ lab: labOf(r, light), spectrum: r }, light);
    return {
      lab: roundedList(reading.lab),
      lch: roundedList(reading.lch),
      value: rounded(reading.value),
      temperature: rounded(reading.temperature),
      hex: reading.hex,
      spectrum: spectrumToJson(r),
      ...(trust === true && { errorEstimate: rounded(trustIn(portions, laying).errorEstimate, 2) }),
    };
  },
};
