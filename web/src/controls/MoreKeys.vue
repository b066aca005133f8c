<script setup lang="ts">
import { mdiDotsHorizontal } from '@mdi/js';

/** What is done less often, behind one key: each by its word, and by its own key without opening this. */
export interface MoreKey {
  readonly title: string;
  readonly run: () => unknown;
  readonly key?: string;
  /** What it is called to a reader, where its word is short. */
  readonly label?: string;
  readonly on?: boolean;
  readonly test?: string;
}
defineOptions({ inheritAttrs: false });
defineProps<{ keys: readonly MoreKey[]; label: string }>();
</script>

<template>
  <v-menu>
    <template #activator="{ props }">
      <v-btn v-bind="{ ...$attrs, ...props }" :aria-label="label" :title="label" class="more" :prepend-icon="mdiDotsHorizontal">More</v-btn>
    </template>
    <v-list :aria-label="label">
      <v-list-item
        v-for="one in keys"
        :key="one.title"
        :active="one.on ?? false"
        :aria-label="one.label"
        :data-test="one.test"
        @click="one.run"
      >
        <v-list-item-title>{{ one.title }}</v-list-item-title>
        <template v-if="one.key" #append
          ><kbd>{{ one.key }}</kbd></template
        >
      </v-list-item>
    </v-list>
  </v-menu>
</template>

<style scoped>
.v-list-item kbd {
  margin-left: calc(4 * var(--unit));
}
.more {
  min-width: 44px;
  padding: 0 calc(2 * var(--unit));
}
</style>
