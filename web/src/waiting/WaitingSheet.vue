<script setup lang="ts">
import type { Operation } from '@dusk/wire';
import { computed, ref } from 'vue';
import { clock } from '../floor/words.ts';
import { besides, differencesOf, isText, kept, type Difference } from './differences.ts';
import type { Waiting } from '../studio/queue.ts';
import { pictureUrl } from '../studio/api.ts';
import { useStudio } from '../studio/useStudio.ts';
import Sheet from '../controls/Sheet.vue';

/** What waits in this browser, and what the studio refused: both sides of it, and the painter's choice. */
const open = defineModel<boolean>({ required: true });
const studio = useStudio();
const busy = ref(false);

const waits = computed(() => studio.waiting.filter((item) => !item.parked));
const behind = (item: Waiting): number => studio.waiting.filter((other) => other.parked?.behind === item.n).length;
const sides = (item: Waiting): readonly Difference[] => differencesOf(item, studio.rows);

async function decide(item: Waiting, ops?: readonly Operation[]): Promise<void> {
  busy.value = true;
  try {
    await studio.decide(item, ops);
    if (studio.waiting.length === 0) open.value = false;
  } finally {
    busy.value = false;
  }
}
</script>

<template>
  <Sheet v-model="open" label="What waits" wide>
    <template v-for="item in studio.refused" :key="item.n">
      <section class="refused" data-test="conflict">
        <h2>{{ item.says }}: which is to stand?</h2>
        <p>{{ item.parked!.problem.detail }}</p>
        <table v-if="sides(item).length">
          <thead>
            <tr>
              <td />
              <th scope="col">yours</th>
              <th scope="col">what stands there now</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="side in sides(item)" :key="side.field">
              <th scope="row">{{ side.field }}</th>
              <td v-for="(one, which) in { mine: side.mine, theirs: side.theirs }" :key="which" :data-test="which">
                <span v-if="one.css" class="chip" :style="{ background: one.css }" />
                <svg v-if="one.drawn" class="small" viewBox="0 0 1 1" preserveAspectRatio="none" aria-hidden="true">
                  <polygon v-for="(points, i) in one.drawn" :key="i" :points="points.join(' ')" />
                </svg>
                <img v-if="one.picture" class="small" :src="pictureUrl(one.picture)" alt="" />
                {{ one.says }}
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="besides(item)" class="quiet">
          {{ besides(item) }} more of this change {{ besides(item) === 1 ? 'goes' : 'go' }} on once it is decided, each asked about if it
          must be.
        </p>
        <p v-if="behind(item)" class="quiet">{{ behind(item) }} more that you did rest on this and wait with it.</p>
        <div class="wrapped">
          <button type="button" class="choice" :disabled="busy" @click="decide(item, kept(item, 'mine'))">
            {{ sides(item).length ? 'Keep mine' : 'Try again' }}
          </button>
          <button type="button" class="choice" :disabled="busy" @click="decide(item, kept(item, 'theirs'))">
            {{ sides(item).length ? 'Keep theirs' : 'Let it go' }}
          </button>
          <button v-if="isText(item)" type="button" class="choice" :disabled="busy" @click="decide(item, kept(item, 'both'))">
            Keep both
          </button>
        </div>
      </section>
    </template>
    <section v-if="waits.length">
      <h2>Waiting for the studio</h2>
      <p>Kept in this browser; it goes to the studio by itself once that answers.</p>
      <ol>
        <li v-for="item in waits" :key="item.n">
          {{ item.says }} <span class="quiet">{{ clock(item.at) }}</span>
        </li>
      </ol>
    </section>
    <p v-if="studio.waiting.length === 0">Nothing waits: all of it is in the studio.</p>
    <div class="end wrapped">
      <button v-if="waits.length" type="button" class="choice" @click="studio.send()">Try now</button>
      <button type="button" class="choice" @click="open = false">Close</button>
    </div>
  </Sheet>
</template>

<style scoped>
.small {
  width: 96px;
  height: 64px;
  display: block;
  object-fit: cover;
  border: 1px solid currentColor;
}
polygon {
  fill: none;
  stroke: currentColor;
  stroke-width: 0.02;
}
.chip {
  display: inline-block;
  width: 44px;
  height: 28px;
  margin-right: calc(2 * var(--unit));
  vertical-align: middle;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin: calc(3 * var(--unit)) 0;
}
th,
td {
  text-align: left;
  padding: calc(2 * var(--unit)) calc(3 * var(--unit)) calc(2 * var(--unit)) 0;
  border-bottom: 1px solid currentColor;
  overflow-wrap: anywhere;
  vertical-align: top;
}
.end {
  justify-content: end;
}
.choice {
  min-height: 48px;
  padding: 0 calc(4 * var(--unit));
  border: 1px solid currentColor;
  border-radius: 4px;
}
ol {
  padding-left: calc(5 * var(--unit));
}
</style>
