<script setup lang="ts">
import { labToHex, through, type Frame } from '@dusk/core';
import { labOfDto } from '@dusk/wire/written';
import { MOST_CORNERS } from '@dusk/wire/limits';
import type Konva from 'konva';
import { Layer as VLayer, Line as VLine, Stage as VStage } from 'vue-konva';
import { computed, ref } from 'vue';
import { thinned } from '../picture/drawing.ts';
import { usePiles, lookNow } from '../stores/piles.ts';
import { useReference } from '../stores/reference.ts';
import { usePlan } from './usePlan.ts';

/**
 * The shapes of the plan over the picture. Drawn round with one stroke, a shape is there; a press takes
 * hold of the one that lies there; the one that is held is dragged, or moved by the arrow keys.
 */
const props = defineProps<{ scale: number; frame: Frame }>();
const plan = usePlan();
const piles = usePiles();
const reference = useReference();

const size = computed(() => ({ width: props.frame.width * props.scale, height: props.frame.height * props.scale }));
const own = computed(() => ({ width: reference.pixels?.width ?? 1, height: reference.pixels?.height ?? 1 }));
/** Shares of the picture's sides, where they are seen. */
const shown = (points: readonly number[]): number[] =>
  points.flatMap((x, i) =>
    i % 2 === 0 ? through(props.frame.toFrame, x * own.value.width, points[i + 1]! * own.value.height).map((v) => v * props.scale) : [],
  );
const toShares = (points: readonly number[]): number[] =>
  points.flatMap((x, i) => {
    if (i % 2 === 1) return [];
    const [px, py] = through(props.frame.toPicture, x / props.scale, points[i + 1]! / props.scale);
    return [share(px / own.value.width), share(py / own.value.height)];
  });
const share = (v: number): number => Math.min(1, Math.max(0, Math.round(1e5 * v) / 1e5));

const lines = computed(() =>
  plan.shapes.map((shape, i) => {
    const pile = piles.byId.get(shape.pileId ?? '');
    return {
      i,
      points: shown(shape.points),
      closed: true,
      fill: labToHex(pile ? lookNow(pile) : labOfDto(shape.lab)),
      opacity: plan.isBlank || i === plan.at ? 1 : 0.92,
    };
  }),
);

/** Below this a hand pressed and did not draw, px. */
const DRAWN_PX = 12;
const APART_PX = 4;
const line = ref<number[]>([]);
let from: { x: number; y: number } | undefined;
let isMoving = false;
const pointer = ({ currentTarget }: Konva.KonvaEventObject<PointerEvent>) =>
  (currentTarget.getStage() as Konva.Stage | null)?.getPointerPosition() ?? undefined;
const shapeAt = (event: Konva.KonvaEventObject<PointerEvent>): number | undefined => {
  const found = Number(event.target.name());
  return event.target.name() !== '' && Number.isInteger(found) ? found : undefined;
};
function down(event: Konva.KonvaEventObject<PointerEvent>): void {
  from = pointer(event);
  isMoving = plan.at !== undefined && shapeAt(event) === plan.at;
  line.value = from && !isMoving ? [from.x, from.y] : [];
}
function move(event: Konva.KonvaEventObject<PointerEvent>): void {
  const to = from && pointer(event);
  if (!to || !from) return;
  if (isMoving) {
    const points = plan.moved((to.x - from.x) / size.value.width, (to.y - from.y) / size.value.height);
    if (points) plan.tryOn({ points });
    from = to;
    return;
  }
  const [x, y] = line.value.slice(-2) as [number, number];
  if (Math.hypot(to.x - x, to.y - y) >= APART_PX) line.value = [...line.value, to.x, to.y];
}
function up(event: Konva.KonvaEventObject<PointerEvent>): void {
  if (!from) return;
  from = undefined;
  const drawn = line.value;
  line.value = [];
  if (isMoving) {
    isMoving = false;
    if (plan.selected) void plan.change({ points: [...plan.selected.points] }, 'Moved a shape');
    return;
  }
  const [xs, ys] = [drawn.filter((_, i) => i % 2 === 0), drawn.filter((_, i) => i % 2 === 1)];
  const isDrawn = Math.max(Math.max(...xs) - Math.min(...xs), Math.max(...ys) - Math.min(...ys)) >= DRAWN_PX;
  if (!isDrawn || drawn.length < 6) {
    plan.at = shapeAt(event);
    return;
  }
  const corners = thinned(
    Array.from({ length: drawn.length / 2 }, (_, i) => [drawn[2 * i]!, drawn[2 * i + 1]!] as const),
    MOST_CORNERS,
  );
  if (corners.length >= 3) void plan.add(toShares(corners.flat()));
}
</script>

<template>
  <div class="plan" data-test="plan-stage" @click.stop @pointerdown.stop @pointermove.stop @pointerup.stop>
    <VStage :config="size" @pointerdown="down" @pointermove="move" @pointerup="up">
      <VLayer>
        <VLine v-for="one in lines" :key="one.i" :config="{ ...one, name: String(one.i) }" />
        <template v-if="plan.at !== undefined && lines[plan.at]">
          <VLine :config="{ points: lines[plan.at]!.points, closed: true, stroke: '#000', strokeWidth: 4, listening: false }" />
          <VLine :config="{ points: lines[plan.at]!.points, closed: true, stroke: '#fff', strokeWidth: 1.5, listening: false }" />
        </template>
        <VLine :config="{ points: line, stroke: '#000', strokeWidth: 4, listening: false }" />
        <VLine :config="{ points: line, stroke: '#fff', strokeWidth: 2, listening: false }" />
      </VLayer>
    </VStage>
  </div>
</template>

<style scoped>
.plan {
  position: absolute;
  inset: 0;
  touch-action: none;
  cursor: crosshair;
}
</style>
