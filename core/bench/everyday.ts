import { colourFromText, type Lab } from '../src/index.ts';

/** A colour that turns up in everyday pictures. */
export interface Everyday {
  readonly name: string;
  readonly munsell: string;
}

const list = (text: string): Everyday[] =>
  text
    .trim()
    .split('\n')
    .map((line) => {
      const at = line.indexOf(':');
      return { munsell: line.slice(0, at).trim(), name: line.slice(at + 1).trim() };
    });

/** A hundred everyday colours: pale ones, skin, greys, earths, greens, skies and water, darks, strong ones. */
export const EVERYDAY: readonly Everyday[] = list(`
5PB 8/4: sky at noon
7.5B 8/3: sky near the horizon
10B 7/5: clear sky, upper
5PB 7/6: sky, deep
5Y 9/1: linen in light
10YR 8.5/2: linen, warm
5PB 8/1: linen in shadow
N 9/: snow in light
5PB 8.5/2: snow in shadow
10PB 7/3: snow, deep shadow
N 9.3/: porcelain
N 8/: plaster
N 7/: plaster in shade
N 6/: overcast, middle
N 5/: wet stone
N 4/: slate roof
N 3/: iron
N 2/: stove in shadow
5Y 8/1: warm light grey
5PB 6/1: cool middle grey
10YR 6/1: warm middle grey
5G 6/1: green grey
5RP 6/1: violet grey
10YR 4/1: warm dark grey
5PB 3/1: cool dark grey
5YR 8/3: skin in light
7.5YR 8.5/2: skin, highest light
2.5YR 7/4: cheek in light
5YR 7/4: skin, light halftone
5YR 6/4: skin, halftone
2.5YR 6/5: ear against light
5YR 5/4: skin, dark halftone
2.5YR 5/3: skin, cool halftone
5YR 4/3: skin in shadow
2.5YR 3/3: skin, deep shadow
5YR 5/5: dark skin in light
5YR 3/4: dark skin, halftone
2.5YR 2/2: dark skin in shadow
10R 5/6: lips
5R 4/5: lips in shadow
10YR 7/2: grey hair
10YR 3/2: brown hair
7.5YR 5/3: fair hair in shadow
2.5Y 7/4: fair hair in light
2.5YR 4/8: auburn hair in light
10YR 7/6: straw
2.5Y 8/6: ripe field
10YR 6/8: ochre wall
7.5YR 6/6: sandstone in sun
7.5YR 5/4: sandstone in shade
10R 5/8: brick in sun
10R 4/5: brick
10R 3/3: brick in shade
5YR 5/8: roof tile
5YR 4/6: copper can
2.5YR 3/5: mahogany
10YR 5/4: oak table
10YR 4/3: oak in shade
7.5YR 3/2: earth, wet
10YR 6/3: earth, dry
5Y 5/2: mud
2.5Y 9/3: candle light on paper
5Y 8/8: lemon rind
2.5Y 7/9: buttercup
10YR 7/10: marigold
5YR 6/11: orange
7.5R 4/12: poppy
5R 3/8: red cloth in shade
7.5R 6/7: pink cloth
5RP 7/5: rose
5RP 5/8: fuchsia
10P 4/5: plum
5P 6/4: lilac
7.5PB 4/8: cornflower
5PB 5/6: blue door
2.5PB 4/7: sea, open
10BG 6/3: sea, shallow
5B 5/3: river
7.5B 4/3: river in shade
5PB 2/3: night sky
10BG 4/3: verdigris in shade
5BG 7/3: verdigris
5G 5/4: glass bottle
10GY 3/3: ivy in shade
7.5GY 5/5: grass
5GY 6/6: young leaves
5GY 7/4: lime tree in sun
7.5GY 4/4: hedge
10GY 6/3: willow
5GY 4/3: olive tree
10Y 6/4: reeds
2.5GY 8/2: distant field
5G 7/2: distant trees
5PB 6/3: distant hills
10PB 8/2: distant hills, last light
5Y 3/1: tarred wood
5R 2/2: wine
10B 2/2: deep water
5GY 2/2: forest, inside
N 1.5/: night window
`);

/** Colours of value 7.5 and up, which ask for little of a strong tube. */
export const isPale = ([L]: Lab): boolean => L >= 75;

export const everydayLabs = (): Lab[] => EVERYDAY.map(({ munsell }) => colourFromText(munsell));
