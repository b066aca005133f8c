import { show, type Lab } from '@dusk/core';
import { apart, cautionsOf, inWords, valueOn, type Saying, type SheetMixture } from './contents.ts';
import { BODY, HEAD, othersTurn, SMALL, TITLE, VALUE, type Flow } from './flow.ts';
import { lacksLetters } from './paper.ts';
import { drawRecipe } from './recipe.ts';

/** The colours of a mixture side by side without a gap, and the empty square where the real dab goes. */
function drawColours(flow: Flow, { lab, target, predicted, seen }: SheetMixture, side: number): void {
  const { paper, left } = flow;
  const fields: (readonly [colour: Lab, says: string])[] = [
    ...(target ? [[target, 'meant'] as const] : []),
    [seen ? predicted : lab, 'reckoned'],
    ...(seen ? [[seen, 'seen'] as const] : []),
  ];
  flow.need(side + paper.lineMm(SMALL) + 2);
  fields.forEach(([colour, says], i) => {
    paper.field(left + i * side, flow.y, side, side, show(colour).css);
    paper.line(says, left + i * side, flow.y + side + 0.5, SMALL);
  });
  const at = left + fields.length * side;
  paper.square(at, flow.y, side, side);
  paper.line('your dab', at, flow.y + side + 0.5, SMALL);
  flow.gap(side + paper.lineMm(SMALL) + 2);
}

/** What is said of a name of which some letters cannot be printed. */
const LACKING = 'Some letters of this name are in no face that is printed here: write them in.';

/** One mixture, read from above: value, name, words, colours, the recipe to squeeze along, what to mind. */
export function drawMixture(flow: Flow, mixture: SheetMixture, saying: Saying): void {
  const { paper, left, fit } = flow;
  const small = paper.size === 'A6';
  flow.of = mixture.name;
  const value = valueOn(mixture.lab, saying);
  const wide = paper.widthOf(value, VALUE) + 3;
  const top = flow.y;
  paper.line(value, left, top, VALUE);
  flow.gap(0.6);
  flow.text(mixture.name, small ? HEAD : TITLE, left + wide);
  if (lacksLetters(mixture.name)) flow.text(LACKING, SMALL, left + wide);
  flow.text(inWords(mixture.lab, saying), BODY, left + wide);
  flow.y = Math.max(flow.y, top + paper.lineMm(VALUE)) + 1;
  if (!fit.brief) for (const line of small ? [mixture.said.filter(Boolean).join(' · ')] : mixture.said) flow.text(line, SMALL);
  if (mixture.seen && !fit.brief) flow.text(`Seen beside reckoned: ${apart(mixture.seen, mixture.predicted, saying)}.`, SMALL);
  flow.text(mixture.note, BODY);
  flow.gap(1.5);
  drawColours(flow, mixture, fit.sideMm);
  drawRecipe(flow, mixture.heaps);
  flow.gap(1);
  if (!fit.brief) flow.text(`${mixture.sure.charAt(0).toUpperCase()}${mixture.sure.slice(1)}. Print is no measure: the dab is.`, SMALL);
  for (const caution of cautionsOf(
    mixture.heaps.flatMap(({ steps }) => steps),
    small || fit.brief,
  ))
    flow.text(caution, SMALL);
  flow.of = '';
}

/** Colours in a row, touching, each above its value: a string, or a painting from dark to light. */
export function drawStrip(flow: Flow, mixtures: readonly SheetMixture[], saying: Saying, high = 16): void {
  const { paper, left, room } = flow;
  const wide = room / mixtures.length;
  flow.need(2 * high + paper.lineMm(SMALL) + 2);
  mixtures.forEach(({ lab }, i) => paper.field(left + i * wide, flow.y, wide, high, show(lab).css));
  mixtures.forEach((_, i) => paper.square(left + i * wide, flow.y + high, wide, high));
  const says = mixtures.map(({ lab }) => valueOn(lab, saying));
  // Where they are many, every so many is told.
  const every = Math.max(1, Math.ceil(Math.max(...says.map((text) => paper.widthOf(text, SMALL) + 1)) / wide));
  says.forEach((text, i) => {
    if (i % every === 0) paper.line(text, left + i * wide, flow.y + 2 * high + 0.5, SMALL);
  });
  flow.gap(2 * high + paper.lineMm(SMALL) + 3);
}

export function drawTitle(flow: Flow, title: string, said: readonly string[]): void {
  flow.text(title, TITLE);
  for (const line of said) flow.text(line, BODY);
  flow.gap(2);
}

function drawListed(flow: Flow, mixture: SheetMixture, at: number, saying: Saying): void {
  const { paper, left, room, fit } = flow;
  flow.of = mixture.name;
  paper.rule(left, flow.y, left + room, flow.y);
  flow.gap(1.2);
  const top = flow.y;
  const side = fit.sideMm;
  paper.field(left, top, side, side, show(mixture.lab).css);
  paper.square(left + side, top, side, side);
  const x = left + 2 * side + 3;
  flow.text(`${at + 1}. ${valueOn(mixture.lab, saying)}  ${mixture.name}`, HEAD, x);
  if (lacksLetters(mixture.name)) flow.text(LACKING, SMALL, x);
  if (!fit.brief) {
    flow.text(inWords(mixture.lab, saying), BODY, x);
    for (const line of mixture.said.slice(0, 1)) flow.text(line, SMALL, x);
  }
  flow.text(mixture.note, SMALL, x);
  flow.y = Math.max(flow.y, top + side) + 1;
  drawRecipe(flow, mixture.heaps);
  flow.gap(1);
  flow.of = '';
}

/** Mixtures one after the other, each with its place in the order of work, and each whole on a page. */
export async function drawList(flow: Flow, mixtures: readonly SheetMixture[], saying: Saying): Promise<void> {
  for (const [i, mixture] of mixtures.entries()) {
    await flow.together(() => drawListed(flow, mixture, i, saying));
    await othersTurn();
  }
}
