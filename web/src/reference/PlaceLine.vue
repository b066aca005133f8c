<script setup lang="ts">
import { useId } from 'vue';
import { inSteps } from '../floor/inSteps.ts';
import { useSamples } from '../stores/samples.ts';
import Pick from '../controls/Pick.vue';
import { ZONES_OR_NONE } from '../controls/options.ts';

/** Where a colour that was kept is: its zone of light, and the thing it belongs to. */
const zone = defineModel<string>('zone', { required: true });
const thing = defineModel<string>('thing', { required: true });
const emit = defineEmits<{ thing: [thing: string] }>();
const samples = useSamples();
const list = useId();
/** The list of zones is a whole task's work: what was kept is shown before it. */
const steps = inSteps(1);
</script>

<template>
  <div class="place-line">
    <span v-if="steps < 1" class="zone">{{ ZONES_OR_NONE.find(({ value }) => value === zone)?.title ?? '' }}</span>
    <Pick v-else v-model="zone" :options="ZONES_OR_NONE" aria-label="Zone of light" data-test="zone" />
    <span>of</span>
    <input
      v-model="thing"
      class="thing"
      :list="list"
      maxlength="80"
      placeholder="which thing?"
      aria-label="Thing it belongs to"
      autocomplete="off"
      data-test="thing"
      @change="emit('thing', thing)"
    />
    <datalist :id="list">
      <option v-for="one in samples.things" :key="one" :value="one" />
    </datalist>
  </div>
</template>

<style scoped>
.place-line {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 0 calc(2 * var(--unit));
  line-height: 1.2;
}
/* As wide as the field that comes there. */
.zone {
  min-width: 120px;
  min-height: 44px;
}
.thing {
  min-height: 44px;
  border-bottom: 1px solid currentColor;
}
.thing {
  flex: 1 1 90px;
  min-width: 0;
}
</style>
