import { COLOUR_NOTATIONS, colourFromInput, deltaE00, readColour } from '@dusk/core';
import { fieldsOf, rounded, roundedList, type Command } from '../command.ts';
import { lightFromInput } from '../read.ts';

export const colour: Command = {
  name: 'colour',
  summary: 'a colour in any notation → in all of them; with "other", the difference',
  help: `One of hex, lab, xyz, munsell, spectrum; "illuminant" is D65 unless said; "other" is a second colour.

  echo '{"hex":"#8a6b4f"}' | npx dusk colour
  echo '{"munsell":"7.5YR 4/6"}' | npx dusk colour
  echo '{"spectrum":{"start":380,"step":10,"r":[0.18,…36 bands]},"illuminant":"D50"}' | npx dusk colour
    → {"xyz":[…],"lab":[…],"lch":[…],"value":4.6666,"munsell":"8YR 4.7/3.5","temperature":21.536,"hex":"#8a6b4f","inDisplay":true}
  echo '{"lab":[50,2.6772,-79.7751],"other":{"lab":[50,0,-82.7485]}}' | npx dusk colour
    → the same with "deltaE00":2.0425

XYZ has Y of the white at 100; Lab is relative to the white of the illuminant.`,
  run: (input) => {
    const { illuminant, other, ...notation } = fieldsOf(input, [...COLOUR_NOTATIONS, 'illuminant', 'other']);
    const light = lightFromInput(illuminant);
    const given = colourFromInput(notation, light);
    const r = readColour(given, light);
    return {
      xyz: roundedList(r.xyz),
      lab: roundedList(r.lab),
      lch: roundedList(r.lch),
      value: rounded(r.value),
      munsell: r.munsell,
      temperature: rounded(r.temperature),
      hex: r.hex,
      inDisplay: r.inDisplay,
      ...(other !== undefined && { deltaE00: rounded(deltaE00(given.lab, colourFromInput(other, light).lab), 5) }),
    };
  },
};
