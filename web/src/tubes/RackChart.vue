<script setup lang="ts">
import { labToHex, labToLch, valueOfLightness, type Lab } from '@dusk/core';
import {
  Chart,
  LinearScale,
  LineController,
  LineElement,
  PointElement,
  ScatterController,
  Tooltip,
  type ChartConfiguration,
} from 'chart.js';
import { onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';

/** Where tubes lie among one another: lightness against strength of colour, or the circle of hues; one of them with its way to white. */
export interface Placed {
  readonly id: string;
  readonly name: string;
  readonly lab: Lab;
}
const props = defineProps<{
  kind: 'lightness' | 'hue';
  tubes: readonly Placed[];
  own: string;
  way: readonly Lab[];
  label: string;
  ink: string;
}>();
const emit = defineEmits<{ choose: [id: string] }>();
Chart.register(ScatterController, LineController, LineElement, PointElement, LinearScale, Tooltip);
const canvas = useTemplateRef('canvas');
let chart: Chart | undefined;

const at = (lab: Lab): { x: number; y: number } =>
  props.kind === 'lightness' ? { x: labToLch(lab)[1], y: valueOfLightness(Math.max(0, lab[0])) } : { x: lab[1], y: lab[2] };
const OWN = 11;
const OTHER = 6;
function config(): ChartConfiguration<'scatter'> {
  const axis = (title: string, min: number, max: number, shown: boolean) => ({
    type: 'linear' as const,
    min,
    max,
    display: shown,
    title: { display: shown, text: title, color: props.ink, font: { size: 14 } },
    ticks: { color: props.ink, font: { size: 13 } },
    grid: { display: false },
    border: { color: props.ink },
  });
  const isLight = props.kind === 'lightness';
  return {
    type: 'scatter',
    data: {
      datasets: [
        {
          data: props.way.map(at),
          showLine: true,
          borderColor: props.ink,
          borderWidth: 1.5,
          pointRadius: 4,
          pointBackgroundColor: props.way.map((lab) => labToHex(lab)),
          pointBorderColor: props.ink,
        },
        {
          data: props.tubes.map(({ lab }) => at(lab)),
          pointRadius: props.tubes.map(({ id }) => (id === props.own ? OWN : OTHER)),
          pointHoverRadius: OWN,
          pointBackgroundColor: props.tubes.map(({ lab }) => labToHex(lab)),
          pointBorderColor: props.ink,
          pointBorderWidth: props.tubes.map(({ id }) => (id === props.own ? 3 : 1)),
        },
      ],
    },
    options: {
      animation: false,
      maintainAspectRatio: !isLight,
      aspectRatio: 1,
      scales: isLight
        ? { x: axis('strength of colour', 0, 110, true), y: axis('value', 0, 10, true) }
        : { x: axis('', -110, 110, false), y: axis('', -110, 110, false) },
      plugins: {
        legend: { display: false },
        tooltip: {
          callbacks: { label: ({ datasetIndex, dataIndex }) => (datasetIndex === 1 ? props.tubes[dataIndex]!.name : 'with white') },
        },
      },
      onClick: (_, found) => {
        const one = found.find(({ datasetIndex }) => datasetIndex === 1);
        if (one) emit('choose', props.tubes[one.index]!.id);
      },
    },
    plugins: isLight ? [] : [RINGS],
  };
}
/** The circle of hues: rings of like strength about grey. */
const RINGS = {
  id: 'rings',
  beforeDatasetsDraw({ ctx, scales }: Chart) {
    const x = scales['x']!;
    const y = scales['y']!;
    const centre = [x.getPixelForValue(0), y.getPixelForValue(0)] as const;
    ctx.save();
    ctx.strokeStyle = ctx.fillStyle = props.ink;
    ctx.globalAlpha = 0.55;
    for (const C of [30, 60, 90]) {
      ctx.beginPath();
      ctx.arc(...centre, x.getPixelForValue(C) - centre[0], 0, 2 * Math.PI);
      ctx.stroke();
    }
    ctx.globalAlpha = 1;
    ctx.font = '14px "Alegreya Sans", sans-serif';
    ctx.textAlign = 'center';
    for (const [word, hue] of [
      ['red', 25],
      ['yellow', 90],
      ['green', 155],
      ['blue', 265],
      ['violet', 315],
    ] as const) {
      const angle = (hue * Math.PI) / 180;
      ctx.fillText(word, x.getPixelForValue(102 * Math.cos(angle)), y.getPixelForValue(102 * Math.sin(angle)) + 4);
    }
    ctx.restore();
  },
};
function draw(): void {
  chart?.destroy();
  if (canvas.value) chart = new Chart(canvas.value, config() as ChartConfiguration);
}
onMounted(draw);
watch(() => [props.tubes, props.own, props.ink], draw);
onBeforeUnmount(() => chart?.destroy());
</script>

<template>
  <div class="chart" :class="kind"><canvas ref="canvas" role="img" :aria-label="label" /></div>
</template>

<style scoped>
.chart {
  position: relative;
  min-width: 0;
}
.lightness {
  height: 100%;
  min-height: 260px;
}
.hue {
  max-width: 300px;
}
</style>
