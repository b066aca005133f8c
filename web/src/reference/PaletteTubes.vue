<script setup lang="ts">
import { leavesOf, show, valueOfLightness, type Mixture } from '@dusk/core';
import { computed } from 'vue';
import { useDesk } from '../stores/useDesk.ts';
import { useSettings } from '../stores/settings.ts';

/** The tubes of the palette, masstone by masstone; those in the recipe are outlined, a press leaves one out. */
const leftOut = defineModel<string[]>({ required: true });
const props = defineProps<{ mixture: Mixture | undefined }>();
const desk = useDesk();
const settings = useSettings();

const used = computed(
  () => new Set(props.mixture ? leavesOf(props.mixture).flatMap(({ source }) => ('tube' in source ? [source.tube] : [])) : []),
);
const tubes = computed(() =>
  desk.paletteTubes.map((tube) => ({
    id: tube.id,
    name: tube.name,
    css: show(tube.masstone).css,
    says: `${tube.name}, value ${settings.valueText(valueOfLightness(tube.masstone[0]))}`,
    isUsed: used.value.has(tube.id),
    isOut: leftOut.value.includes(tube.id),
  })),
);
const press = (id: string): void =>
  void (leftOut.value = leftOut.value.includes(id) ? leftOut.value.filter((one) => one !== id) : [...leftOut.value, id]);
</script>

<template>
  <section class="tubes" aria-label="Tubes of the palette">
    <p class="head">
      <RouterLink class="name" :to="{ name: 'palettes', params: { paletteId: desk.palette?.id } }">{{ desk.palette?.name }}</RouterLink>
      <span class="quiet">
        <template v-if="leftOut.length > 0"
          >without
          {{
            tubes
              .filter((tube) => tube.isOut)
              .map((tube) => tube.name)
              .join(', ')
          }}</template
        >
      </span>
      <RouterLink
        class="another"
        aria-label="Another tube onto the palette"
        title="Another tube onto the palette (a)"
        :to="{ name: 'palettes', params: { paletteId: desk.palette?.id }, query: { add: 'one' } }"
        >another tube</RouterLink
      >
    </p>
    <div class="row">
      <button
        v-for="tube in tubes"
        :key="tube.id"
        type="button"
        class="tube"
        :class="{ used: tube.isUsed, out: tube.isOut }"
        :aria-pressed="tube.isOut"
        :aria-label="`${tube.says}${tube.isUsed ? ', in the recipe' : ''}. Leave it out`"
        :title="`${tube.name}${tube.isOut ? ': left out' : ': press to leave it out'}`"
        :style="{ background: tube.css }"
        @click="press(tube.id)"
      >
        <svg v-if="tube.isOut" viewBox="0 0 10 10" preserveAspectRatio="none" aria-hidden="true">
          <path d="M0 0L10 10M10 0L0 10" class="dark" />
          <path d="M0 0L10 10M10 0L0 10" class="light" />
        </svg>
      </button>
    </div>
  </section>
</template>

<style scoped>
.tubes {
  font-size: var(--size-note);
}
.name {
  color: inherit;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 calc(2 * var(--unit));
}
.row {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(44px, 1fr));
  gap: calc(2.5 * var(--unit));
  margin: calc(1.5 * var(--unit)) 0 var(--unit);
}
.tube {
  height: 44px;
  position: relative;
}
.another {
  min-height: 44px;
  display: inline-flex;
  align-items: center;
  color: inherit;
}
/* A gap of the surround, then a line: no border touches what is judged. */
.used {
  outline: 2px solid var(--surround-ink);
  outline-offset: 2px;
}
.tube svg {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
}
.dark {
  stroke: #000;
  stroke-width: 1;
}
.light {
  stroke: #fff;
  stroke-width: 0.4;
}
</style>
