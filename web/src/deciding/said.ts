import { colourName, valueOfLightness, type ProposedColour } from '@dusk/core';

const AS: Readonly<Record<ProposedColour['as'], string>> = {
  colour: '',
  accent: 'a small accent, ',
  darkest: 'the darkest, ',
  lightest: 'the lightest, ',
};

/** `the darkest, value 1.2, umber`. */
export const saysOf = (
  { lab, as, isRefused }: Pick<ProposedColour, 'lab' | 'as'> & { readonly isRefused?: boolean },
  { valueText }: { readonly valueText: (value: number) => string },
): string => `${AS[as]}value ${valueText(valueOfLightness(lab[0]))}, ${colourName(lab)}${isRefused ? ', not taken' : ''}`;
