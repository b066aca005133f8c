<script setup lang="ts">
import { hasBrowns, turnWords, type Lab, type Nudge } from '@dusk/core';
import { onScopeDispose, computed } from 'vue';
import { clock } from '../floor/words.ts';
import { useWhite } from '../floor/white.ts';

/**
 * Six keys that turn the right half into what is on the knife, and the same in coarse words. A short
 * press is a small step; held, the steps grow large.
 */
const props = defineProps<{ lab: Lab }>();
const emit = defineEmits<{ nudge: [by: Nudge, steps: number]; say: [word: string, by: Nudge, way: 1 | -1, much: boolean] }>();
const white = useWhite();

const turns = computed(() => turnWords(props.lab));
interface Key {
  readonly word: string;
  readonly by: Nudge;
  readonly way: 1 | -1;
  readonly key: string;
}
const keys = computed((): readonly Key[] => [
  { word: 'lighter', by: 'value', way: 1, key: '↑' },
  { word: 'darker', by: 'value', way: -1, key: '↓' },
  { word: turns.value.onward, by: 'hue', way: 1, key: '→' },
  { word: turns.value.back, by: 'hue', way: -1, key: '←' },
  { word: 'brighter', by: 'chroma', way: 1, key: '+' },
  { word: 'duller', by: 'chroma', way: -1, key: '−' },
]);

/** What is said in words beside the keys: near neutral the keys say warmer and cooler themselves. */
const further = computed((): readonly Omit<Key, 'key'>[] => [
  ...(turns.value.onward === 'warmer'
    ? []
    : [{ word: 'warmer', by: 'temperature', way: 1 } as const, { word: 'cooler', by: 'temperature', way: -1 } as const]),
  ...(hasBrowns(props.lab) ? [{ word: 'browner', by: 'brown', way: 1 } as const] : []),
]);

const LONG_MS = 420;
const REPEAT_MS = 220;
const LARGE = 5;
let held: ReturnType<typeof setTimeout> | undefined;
let large = false;
function press(by: Nudge, way: 1 | -1): void {
  large = false;
  const again = (): void => {
    large = true;
    emit('nudge', by, way * LARGE);
    held = setTimeout(again, REPEAT_MS);
  };
  held = setTimeout(again, LONG_MS);
  for (const end of ['pointerup', 'pointercancel']) window.addEventListener(end, stop, { once: true });
}
function stop(): void {
  clearTimeout(held);
  held = undefined;
}
onScopeDispose(stop);
/** The end of a long press is no short one. */
function onClick(by: Nudge, way: 1 | -1): void {
  if (!large) emit('nudge', by, way);
  large = false;
}
const sure = computed(() =>
  white.isSet
    ? `White paper set at ${clock(white.white!.at)}. An eye at a screen judges a step you would just see.`
    : white.outshone
      ? 'Your paper is brighter than this screen: say it in words, and beside its neighbours.'
      : white.drifted
        ? 'The light has moved since the white was set.'
        : 'This screen’s white is not set to your paper yet.',
);
</script>

<template>
  <div class="look-keys stack-close">
    <div class="keys" role="group" aria-label="Until the right half looks like the paint on your knife">
      <button
        v-for="key in keys"
        :key="key.key"
        type="button"
        class="key"
        :aria-label="key.word"
        :aria-keyshortcuts="key.key"
        @pointerdown="press(key.by, key.way)"
        @click="onClick(key.by, key.way)"
        @contextmenu.prevent
      >
        {{ key.word }} <kbd>{{ key.key }}</kbd>
      </button>
    </div>
    <div class="words" role="group" aria-label="In words">
      <span class="or">or say:</span>
      <template v-for="key in keys" :key="`say ${key.key}`">
        <button type="button" class="word" @click="emit('say', key.word, key.by, key.way, false)">{{ key.word }}</button>
        <button v-if="key.by === 'value'" type="button" class="word" @click="emit('say', key.word, key.by, key.way, true)">
          a good deal {{ key.word }}
        </button>
      </template>
      <button v-for="{ word, by, way } in further" :key="word" type="button" class="word" @click="emit('say', word, by, way, false)">
        {{ word }}
      </button>
    </div>
    <slot />
    <p class="sure">
      {{ sure }}
      <button type="button" class="link" @click="white.setting = true">
        {{ white.isSet ? 'Lamp changed? Set it again' : 'Set the white' }}
      </button>
    </p>
  </div>
</template>

<style scoped>
.keys {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
  gap: calc(2 * var(--unit));
}
.key {
  min-height: 48px;
  font-weight: 700;
  border: 1px solid currentColor;
  border-radius: 4px;
  touch-action: none;
  user-select: none;
}
.words {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  margin-left: -7px;
}
.or {
  padding-left: calc(2 * var(--unit));
  font-size: var(--size-note);
}
.word {
  min-height: 44px;
  padding: 0 calc(2 * var(--unit));
  font-size: var(--size-note);
  text-decoration: underline;
  text-underline-offset: 3px;
}
.sure {
  font-size: var(--size-note);
}
.link {
  text-decoration: underline;
  min-height: 24px;
}
</style>
