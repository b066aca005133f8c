import { ANOTHER_PAINT, CraftError, spectrumFromJson, taughtBy, type SwatchReading } from '@dusk/core';
import { fieldsOf, roundedList, rounded, type Command } from '../command.ts';
import { tubeOf } from '../ownTubes.ts';
import { partsFromReading, seenFromInput } from '../read.ts';

export const fit: Command = {
  name: 'fit',
  summary: 'swatches of a tube with white → its own curves',
  help: `  echo '{"pigment":"burnt-sienna","white":"titanium-white","readings":[{"parts":{"tube":1,"white":9},"spectrum":{"start":380,"step":10,"r":[…]}}]}' | npx dusk fit
    → {"K":[36],"S":[36],"strength":1.12,"shift_nm":-1.4,"residuals":[0.4],"strangeness":0.8,"basis":"fitted"}

"readings" hold "parts" of the tube and of the white, and a "spectrum" (36 bands, the mirror part left out) or a colour off a
photographed card ("lab" or "hex", D65). "white" is titanium-white unless said; its S is typical, and all else is told against
it. "pigment" is what the tube is taken for; a white is fitted by itself, from readings without white. "residuals" are ΔE00
from each reading; "strangeness" is how far it lies from tubes of its pigment, in standard deviations: beyond 3 it is likely
another paint, and "strange" says so. The answer goes into "tubes" of any other command: {"tubes":{"my sienna":{"K":[…],"S":[…]}},"parts":{"my sienna":1}}.`,
  run: (input) => {
    const { pigment, white = 'titanium-white', readings } = fieldsOf(input, ['pigment', 'white', 'readings']);
    if (!Array.isArray(readings))
      throw new CraftError('input', 'readings must be a list, as [{"parts":{"tube":1,"white":9},"spectrum":{…}}].');
    const from = tubeOf(pigment);
    const list = readings.map((one): SwatchReading => {
      const { parts, spectrum, ...colour } = fieldsOf(one, ['parts', 'spectrum', 'lab', 'hex']);
      const of = partsFromReading(parts);
      if (spectrum !== undefined) return { parts: of, spectrum: spectrumFromJson(spectrum) };
      return { parts: of, lab: seenFromInput(colour, 'D65', 'A reading'), by: 'photo' };
    });
    const fitted = taughtBy(from, tubeOf(white), list);
    return {
      K: roundedList([...fitted.K], 6),
      S: roundedList([...fitted.S], 6),
      strength: rounded(fitted.strength),
      shift_nm: rounded(fitted.shiftNm),
      residuals: roundedList(fitted.residuals),
      strangeness: rounded(fitted.strangeness),
      ...(fitted.strangeness > ANOTHER_PAINT && {
        strange: `Far from what ${String(pigment)} usually is: is it another tube, or another row of the card?`,
      }),
      basis: 'fitted',
    };
  },
};
