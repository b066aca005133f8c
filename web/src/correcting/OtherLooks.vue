<script setup lang="ts">
import { colourFromText, CraftError } from '@dusk/core';
import { proxyRefs, ref } from 'vue';
import type { LookState } from './useLook.ts';

/** How else a pile may be looked at: typed, or a photo; and keeping what was said. */
const props = defineProps<{ looking: LookState }>();
const emit = defineEmits<{ photo: []; record: [] }>();
const look = proxyRefs(props.looking);
const typed = ref('');
const wrong = ref('');

function read(): void {
  try {
    look.read(colourFromText(typed.value), 'typed');
    typed.value = wrong.value = '';
  } catch (cause) {
    if (!(cause instanceof CraftError)) throw cause;
    wrong.value = cause.message;
  }
}
</script>

<template>
  <div class="other-looks">
    <div class="otherwise">
      <button v-if="look.draft" type="button" class="strong link-key" @click="emit('record')">That is how it looks <kbd>Enter</kbd></button>
      <button v-if="look.draft" type="button" class="link-key" @click="look.clear()">Start over</button>
    </div>
    <div class="otherwise">
      <form class="typed" @submit.prevent="read">
        <label>or type it <input v-model="typed" placeholder="5YR 4/3, #7a5a48, 42 10 14" aria-label="Colour as typed" /></label>
      </form>
      <button type="button" class="link-key" @click="emit('photo')">or a photo</button>
    </div>
    <p v-if="wrong" class="wrong" role="alert">{{ wrong }}</p>
  </div>
</template>

<style scoped>
.otherwise {
  display: flex;
  flex-wrap: wrap;
  gap: var(--unit) calc(4 * var(--unit));
  align-items: center;
}
.typed input {
  border-bottom: 1px solid currentColor;
  min-height: 40px;
  width: 200px;
  padding: 0 var(--unit);
}
.strong {
  font-weight: 700;
}
.wrong {
  font-weight: 700;
}
</style>
