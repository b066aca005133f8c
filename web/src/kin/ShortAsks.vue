<script setup lang="ts">
import { mlText } from '@dusk/core';
import Asks from './Asks.vue';
import type { Short } from '../recipe/deeds.ts';

/** More is to be taken from a pile than lies there: whether there was enough is the painter's to say. */
defineProps<{ short: readonly Short[]; /** How large this pile can be made of what lies there. */ most: number }>();
const emit = defineEmits<{ less: []; enough: []; leave: [] }>();
</script>

<template>
  <Asks label="There is not enough of what it takes from" data-test="short-asks">
    <p v-for="{ name, takes, there } in short" :key="name">
      It takes {{ mlText(takes) }} of <b>{{ name }}</b>; {{ there > 0 ? `${mlText(there)} of it lies there` : 'nothing of it is left' }}.
    </p>
    <div class="keys">
      <v-btn v-if="most > 0" variant="outlined" @click="emit('less')">Make {{ mlText(most) }} of this</v-btn>
      <v-btn variant="outlined" @click="emit('enough')">There was enough</v-btn>
      <v-btn variant="outlined" @click="emit('leave')">Leave it</v-btn>
    </div>
  </Asks>
</template>

<style scoped>
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: calc(2 * var(--unit));
  margin-top: calc(2 * var(--unit));
}
</style>
