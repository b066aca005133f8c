<script setup lang="ts">
import Sheet from '../controls/Sheet.vue';

const open = defineModel<boolean>({ required: true });

const KEYS: readonly (readonly [keys: string, says: string])[] = [
  ['g', 'everything in grey, and back'],
  ['s', 'squint, and back: pictures and chips, not words'],
  ['arrows', 'move the point on the picture; with Shift by larger steps'],
  ['+ −', 'a larger or smaller area (or the wheel)'],
  ['y', 'amounts by eye, in parts, as beads, by scale'],
  ['k', 'keep the pile under the point (or a click, or Enter)'],
  ['a', 'another tube onto the palette; Esc goes back'],
  ['d b', 'draw round an area; only its value counts'],
  ['h u', 'the mark that is held moves to the point; is joined with what is there'],
  ['v w c', 'the picture in steps of value; warm and cool; how bright colours are'],
  ['e r t', 'its edges; what is out of reach; what the photo has lost (too dark, too light)'],
  ['m q l', 'the picture in your own piles; colours that matter; a plan in flat shapes'],
  ['j z', 'try a change; hold the canvas against the picture, Space flips them'],
  ['[ ]', 'less and more of it: steps, squint'],
  ['x n i o', 'mirror; grid; marks; with and without'],
  ['f p', 'the key fitted to paint, and back; the picture as paint'],
  [', .', 'the picture before, the next'],
  ['↑ ↓', 'open pile: what is on the knife is lighter, darker; with Shift by larger steps'],
  ['→ ←', 'open pile: its hue turns onward, back'],
  ['+ −', 'open pile: it is brighter, duller'],
  ['Enter', 'open pile: that is how it looks'],
  ['m', 'open pile: it looks as it should'],
  ['Space', 'open pile: mixed, or added; at the easel: the next step'],
  ['→ ←', 'at the easel: a step on, a step back'],
  ['d', 'at the easel: dim'],
  ['Esc', 'leave the easel; close a sheet'],
  ['1 2 3 4', 'open pile: its recipe or what to add; what comes from it; steps between; what it is for'],
  ['↑ ↓ → ← + −', 'from it: lighter, darker, warmer, cooler, brighter, duller; with Shift by larger steps'],
  ['i f', 'from it: the same in shadow, the same further off'],
  ['Enter', 'from it and steps: keep it; at the easel: on, as Space'],
  ['t', 'open pile: take the first other recipe'],
  ['c', 'open pile: make a card of it; its row of steps, the layer, a palette: of each'],
  ['/', 'cards near what is pointed at, or near the open pile; among the cards: words to find by'],
  ['o', 'among the piles: out of doors, take it along and bring it home'],
  ['p', 'print: a card, a set, the painting, a palette’s chart'],
  ['← → u d b', 'among the cards: the one before, the next; use it; its dab; bring cards'],
  ['r', 'open pile: remake it from today’s tubes'],
  ['PgDn PgUp', 'at the easel: a step on, a step back, as a clicker sends them'],
  ['a', 'at the easel: read aloud'],
  ['n l q', 'among the piles: a new one; one you mixed yourself; a tube that is forgotten'],
  ['n', 'among the tubes: your own, several at once'],
  ['l t e', 'in the log: lay a layer; as last time; end the day; 1 to 4 its parts'],
  ['d f j', 'among the piles: plan the day; a photo of the palette; field notes'],
  ['← →', 'on the ledge: the next darker, the next lighter pile; Home and End the darkest and lightest'],
  ['Ctrl+Z', 'take back what was done last, anywhere; with Shift do it again'],
  ['F6', 'from the place to its ledge, to the rail, and round again'],
  ['?', 'this list'],
];
</script>

<template>
  <Sheet v-model="open" label="Keys" wide>
    <h2>Keys, one hand each</h2>
    <dl class="keys">
      <template v-for="[keys, says] in KEYS" :key="says">
        <dt>
          <kbd>{{ keys }}</kbd>
        </dt>
        <dd>{{ says }}</dd>
      </template>
    </dl>
    <div class="foot-keys"><v-btn @click="open = false">Done</v-btn></div>
  </Sheet>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: calc(2 * var(--unit)) calc(4 * var(--unit));
  margin: calc(5 * var(--unit)) 0;
}
.keys dd {
  margin: 0;
}
</style>
