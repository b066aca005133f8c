<script setup lang="ts">
import { differenceWords, withoutOffset } from '@dusk/core';
import { computed, nextTick, useTemplateRef, watch } from 'vue';
import ColourPair from '../chips/ColourPair.vue';
import FileDrop from '../controls/FileDrop.vue';
import Sheet from '../controls/Sheet.vue';
import { counted } from '../floor/words.ts';
import { useLanding } from '../stores/landing.ts';
import { lookNow, usePiles } from '../stores/piles.ts';
import { useSettings } from '../stores/settings.ts';
import { useTubes } from '../stores/tubes.ts';
import { usePalettePhoto } from './usePalettePhoto.ts';

/** One photo of the palette: its piles found, each with how it looks and what is off; kept in one press. */
const open = defineModel<boolean>({ required: true });
const piles = usePiles();
const tubes = useTubes();
const landing = useLanding();
const settings = useSettings();
const photo = usePalettePhoto();
const { seen, failure, busy, laid, shown } = photo;
const canvas = useTemplateRef('canvas');
watch(open, () => photo.clear());
watch(seen, async (now) => {
  await nextTick();
  const at = canvas.value;
  if (!now || !at) return;
  at.width = now.image.width;
  at.height = now.image.height;
  at.getContext('2d')!.drawImage(now.image, 0, 0);
});

const rows = computed(() =>
  (seen.value?.matches ?? []).flatMap(({ id, paint }, at) => {
    const pile = piles.byId.get(id);
    if (!pile) return [];
    const wanted = landing.wantedOf(pile) ?? lookNow(pile);
    const off = seen.value!.off.find((one) => one.id === id);
    const words = off ? differenceWords(withoutOffset(paint.lab, seen.value!.offset), wanted, settings.settings.warmBlue) : [];
    return [
      {
        id,
        at: at + 1,
        paint,
        name: pile.name,
        wanted,
        says: off
          ? `${words.join(', ') || 'off'}: a little ${tubes.byId.get(off.by)?.name ?? 'of a tube'} would bring it nearest`
          : 'as wanted',
      },
    ];
  }),
);
const missing = computed(() => (seen.value?.missing ?? []).flatMap((id) => piles.byId.get(id)?.name ?? []));
const rings = computed(() => [
  ...rows.value.map(({ paint, at }) => ({ ...paint, says: String(at) })),
  ...(seen.value?.unknown ?? []).map((paint) => ({ ...paint, says: '?' })),
]);
async function keep(): Promise<void> {
  if (await photo.keep()) open.value = false;
}
</script>

<template>
  <Sheet v-model="open" label="One photo of the palette" judging wide>
    <h2>One photo of the palette</h2>
    <p v-if="!seen">
      Lay white paper on the palette, or beside the paint, and take it from above in one light. What is found is taken as mixed, and as it
      looks there.
    </p>
    <div v-if="!seen" class="stack-close">
      <FileDrop label="Photo of the palette" accept="image/jpeg,image/png" @file="photo.see({ file: $event })">Choose a photo</FileDrop>
      <v-btn variant="text" :disabled="laid.length === 0" data-test="stand-in" @click="photo.standIn">With the stand-in camera</v-btn>
    </div>
    <p v-if="busy" class="quiet" role="status">Looking for the piles…</p>
    <p v-if="failure" class="failure" role="alert" data-test="photo-refused">{{ failure }}</p>
    <template v-if="seen">
      <div class="found">
        <div class="photo">
          <canvas ref="canvas" />
          <span
            v-for="(ring, i) in rings"
            :key="i"
            class="ring figures"
            :style="{ left: `${ring.x * 100}%`, top: `${ring.y * 100}%`, width: `${ring.width * 106}%` }"
            ><b>{{ ring.says }}</b></span
          >
        </div>
        <ul class="rows bare">
          <li v-for="row in rows" :key="row.id" data-test="photo-row">
            <span class="figures">{{ row.at }}</span>
            <ColourPair :target="row.wanted" :mixed="row.paint.lab" :height="40" />
            <span
              ><b>{{ row.name }}</b
              ><br />{{ row.says }}</span
            >
          </li>
          <li v-for="(paint, i) in seen.unknown" :key="`unknown ${i}`" data-test="photo-unknown">
            <span>?</span>
            <span class="chip" :style="{ background: shown(paint.lab).css }" />
            <span>not known</span>
          </li>
        </ul>
      </div>
      <p class="figures" data-test="photo-sum">
        {{ counted(rows.length, 'pile') }} found<template v-if="seen.unknown.length > 0"
          >, {{ seen.unknown.length }} that {{ seen.unknown.length === 1 ? 'is' : 'are' }} not known: kept as
          {{ seen.unknown.length === 1 ? 'a pile' : 'piles' }} of its colour</template
        ><template v-if="missing.length > 0">; not in it: {{ missing.join(', ') }}</template
        >.
      </p>
      <div class="foot-keys">
        <v-btn @click="photo.clear">Another photo</v-btn>
        <button type="button" class="main-key" :disabled="busy" data-test="keep-photo" @click="keep">Keep all of it</button>
      </div>
    </template>
    <div v-else class="foot-keys"><v-btn @click="open = false">Not now</v-btn></div>
  </Sheet>
</template>

<style scoped>
/* The photo, and beside it what is off. */
.found {
  display: grid;
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  gap: calc(4 * var(--unit));
  align-items: start;
}
@media (max-width: 700px) {
  .found {
    grid-template-columns: minmax(0, 1fr);
  }
}
.photo {
  position: relative;
}
.photo canvas {
  width: 100%;
  display: block;
}
.ring {
  position: absolute;
  aspect-ratio: 1;
  transform: translate(-50%, -50%);
  border: 1.5px solid #fff;
  outline: 1.5px solid #000;
  border-radius: 50%;
  pointer-events: none;
}
.ring b {
  position: absolute;
  left: 0;
  top: 0;
  padding: 0 0.3em;
  color: #fff;
  background: #000;
}
.rows li {
  display: grid;
  grid-template-columns: 1.4em 72px minmax(0, 1fr);
  gap: calc(3 * var(--unit));
  align-items: center;
  padding: calc(2 * var(--unit)) 0;
  border-top: 1px solid currentColor;
  line-height: 1.25;
}
.rows .chip {
  height: 40px;
}
.foot-keys {
  position: sticky;
  bottom: calc(-6 * var(--unit));
  padding: calc(3 * var(--unit)) 0;
  background: var(--surround);
}
</style>
