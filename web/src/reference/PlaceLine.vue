<script setup lang="ts">
import { ZONES } from '@dusk/core';
import { useId } from 'vue';
import { useSamples } from '../stores/samples.ts';

/** Where a colour is: its zone of light, proposed, and the thing it belongs to. */
const zone = defineModel<string>('zone', { required: true });
const thing = defineModel<string>('thing', { required: true });
defineProps<{ proposed: boolean; calm: string }>();
const emit = defineEmits<{ thing: [thing: string] }>();
const samples = useSamples();
const list = useId();
</script>

<template>
  <div class="place-line">
    <label class="zone" :title="proposed ? 'proposed from value and place' : ''">
      <span class="for-readers">Zone of light</span>
      <select v-model="zone" data-test="zone" :class="{ proposed }">
        <option value="">no zone</option>
        <option v-for="one in ZONES" :key="one" :value="one">{{ one }}</option>
      </select>
    </label>
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
    <div class="rest">
      <span v-if="calm" class="quiet">{{ calm }}</span>
      <slot />
    </div>
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
select,
.thing {
  min-height: 44px;
  border-bottom: 1px solid currentColor;
}
select option {
  color: #000;
  background: #fff;
}
/* What was only proposed is said with less weight. */
.proposed {
  font-style: italic;
}
.thing {
  flex: 1 1 90px;
  min-width: 0;
}
.rest {
  flex-basis: 100%;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  justify-content: space-between;
  gap: 0 calc(2 * var(--unit));
  font-size: var(--size-note);
}
</style>
