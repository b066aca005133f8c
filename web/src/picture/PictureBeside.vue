<script setup lang="ts">
import type { Outline } from '@dusk/core';
import type { PileDto } from '@dusk/wire';
import { useLocalStorage } from '@vueuse/core';
import { useTelling } from './following.ts';
import { computed, onMounted, onUnmounted, provide, ref, toRef, watch } from 'vue';
import { useSight } from '../floor/sight.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';
import { useSamples } from '../stores/samples.ts';
import { HELD } from './held.ts';
import PictureStage from './PictureStage.vue';
import PlaceLarge from './PlaceLarge.vue';
import { useServing } from './useServing.ts';
import type { Place } from './useLiveRecipe.ts';

/** The picture where colours are mixed: the whole, and the place in question large. It can be sent away, and asked back. */
const props = defineProps<{
  pile?: PileDto | undefined;
  /** Where a pile that was asked for is opened; left out, it is opened by itself, and a press moves what is meant for the one that is open. */
  opens?: (pileId: string) => void;
}>();
const store = useReference();
const samples = useSamples();
const looking = useLooking();
const sight = useSight();
const away = useLocalStorage('dusk.pictureAway', false);
useTelling();
const { pressed, openMark } = useServing(toRef(props, 'pile'), props.opens);

/** The place opens first, then its picture. */
const later = ref(false);
onMounted(() => setTimeout(() => (later.value = true)));

/** Where the pile was seen; it may be in another picture than the one looked at last. */
const sample = computed(() => samples.all.find(({ id }) => id === props.pile?.sampleId));
watch(
  sample,
  (now) => {
    if (now?.referenceId && now.referenceId !== store.reference?.id && store.all.some(({ id }) => id === now.referenceId))
      store.choose(now.referenceId);
  },
  { immediate: true },
);
/** What is held in Reference stays what it is there. */
provide(
  HELD,
  computed(() => sample.value?.id),
);
const ofPile = computed(() => samples.marks.find(({ sample: { id } }) => id === props.pile?.sampleId)?.outline);
/** Where the arrow keys have gone. */
const going = ref<Place>();
watch([() => props.pile?.id, ofPile], () => (going.value = undefined));
const outline = computed<Outline | undefined>(() => (going.value ? { ...going.value, radius: store.radius } : ofPile.value));
/** Every place that the open pile serves is lit, live, or no more. */
const lightUp = (): void => void (looking.lit = looking.lit === props.pile?.id ? undefined : props.pile?.id);
watch(
  () => props.pile?.id,
  (id) => {
    if (looking.lit !== undefined) looking.lit = id;
  },
);
onUnmounted(() => (looking.lit = undefined));
const ratio = computed(() => (store.frame ? store.frame.width / store.frame.height : 1.5));
</script>

<template>
  <section v-if="store.reference" class="picture-beside" :class="{ away }" aria-label="The picture">
    <template v-if="!away">
      <div class="whole" :style="{ '--ratio': ratio }">
        <PictureStage
          v-if="later && store.pixels"
          :name="store.reference.name"
          :outline="outline"
          beside
          @point="going = $event"
          @keep="going && pressed(going)"
          @press="pressed"
          @open="openMark"
        />
        <p v-else-if="store.failure">{{ store.failure }}</p>
      </div>
      <template v-if="later && store.pixels && outline">
        <PlaceLarge v-if="opens || !sample" :outline="outline" class="large" />
        <RouterLink
          v-else
          class="large"
          aria-label="Where it was seen"
          title="Where it was seen"
          :to="{ name: 'reference', params: { paintingId: sample.paintingId }, query: { sample: sample.id } }"
          ><PlaceLarge :outline="outline"
        /></RouterLink>
      </template>
    </template>
    <div class="keys">
      <template v-if="!away">
        <button
          v-if="pile"
          type="button"
          :aria-pressed="looking.lit === pile.id"
          title="every place that this pile serves"
          @click="lightUp"
        >
          where else
        </button>
        <button v-if="!looking.isPlain" type="button" @click="looking.plain()">as seen</button>
        <button type="button" :aria-pressed="sight.grey" title="everything in grey (g)" @click="sight.grey = !sight.grey">grey</button>
        <button type="button" :aria-pressed="sight.squint" title="eyes half closed (s)" @click="sight.squint = !sight.squint">
          squint
        </button>
      </template>
      <button type="button" class="send" @click="away = !away">{{ away ? 'Show the picture' : 'send it away' }}</button>
    </div>
  </section>
</template>

<style scoped>
.picture-beside {
  display: grid;
  align-content: start;
  gap: calc(2 * var(--unit));
  min-width: 0;
}
.whole {
  aspect-ratio: var(--ratio);
  max-height: 42vh;
  min-height: 0;
}
.large {
  height: clamp(90px, 20vh, 240px);
}
.large > .place {
  height: 100%;
}
.keys {
  display: flex;
  flex-wrap: wrap;
  gap: 0 calc(4 * var(--unit));
  font-size: var(--size-note);
}
.keys button {
  min-height: 44px;
  min-width: 44px;
  text-decoration: underline;
  text-underline-offset: 3px;
}
.keys [aria-pressed='true'] {
  font-weight: 700;
}
.send {
  margin-left: auto;
}
@media (orientation: portrait) {
  .picture-beside:not(.away):has(> .large) {
    grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
  }
  .keys {
    grid-column: 1 / -1;
  }
  .large {
    height: auto;
  }
  .whole {
    max-height: 30vh;
  }
}
</style>
