<script setup lang="ts">
import { useId } from 'vue';
import { useSamples } from '../stores/samples.ts';
import Pick from '../controls/Pick.vue';
import { ZONES_OR_NONE } from '../controls/options.ts';

/** Where a colour that was kept is: its zone of light, and the thing it belongs to. */
const zone = defineModel<string>('zone', { required: true });
const thing = defineModel<string>('thing', { required: true });
const emit = defineEmits<{ thing: [thing: string] }>();
const samples = useSamples();
const list = useId();
</script>

<template>
  <div class="place-line">
    <Pick v-model="zone" :options="ZONES_OR_NONE" aria-label="Zone of light" data-test="zone" />
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
.thing {
  min-height: 44px;
  border-bottom: 1px solid currentColor;
}
.thing {
  flex: 1 1 90px;
  min-width: 0;
}
</style>
