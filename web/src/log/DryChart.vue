<script setup lang="ts">
import { DAY_MS, daySaid } from '@dusk/core';
import type { PaintingDto } from '@dusk/wire';
import { BarController, BarElement, CategoryScale, Chart, LinearScale, Tooltip, type ChartConfiguration } from 'chart.js';
import { computed, onBeforeUnmount, onMounted, useTemplateRef, watch } from 'vue';
import { useTheme } from 'vuetify';
import { useLog, zone, type Passage } from '../stores/log.ts';
import Pick from '../controls/Pick.vue';
import { useSettings } from '../stores/settings.ts';
import { sheetUrl } from '../studio/api.ts';

/** What dries when: for each area from when it may be dry to touch, to when it surely is, and dry through. */
const props = defineProps<{ painting: PaintingDto; passages: readonly Passage[] }>();
Chart.register(BarController, BarElement, CategoryScale, LinearScale, Tooltip);
const log = useLog();
const settings = useSettings();
const theme = useTheme();
const canvas = useTemplateRef('canvas');
let chart: Chart | undefined;
const rows = computed(() =>
  props.passages.flatMap(({ area, own }) => {
    const top = own.at(-1);
    return top ? [{ name: area.name, laid: top.layer.at, touch: top.touchDry, through: top.throughDry }] : [];
  }),
);
const MOST_DAYS = 90;
const days = (at: number): number => Math.min(MOST_DAYS, Math.max(-14, (at - log.at) / DAY_MS));
function config(): ChartConfiguration<'bar'> {
  const ink = theme.current.value.colors['on-background'] ?? '#ddd';
  const bar = (from: (row: (typeof rows.value)[number]) => readonly [number, number]) =>
    rows.value.map((row) => from(row).map(days) as [number, number]);
  const latest = Math.ceil(Math.max(3, ...rows.value.map(({ touch }) => days(touch[1]) * 1.3)));
  const font = '"Alegreya Sans", sans-serif';
  return {
    type: 'bar',
    data: {
      labels: rows.value.map(({ name }) => name),
      datasets: [
        { label: 'wet or tacky', data: bar(({ laid, touch }) => [laid, touch[0]]), backgroundColor: `${ink}30`, barThickness: 18 },
        { label: 'touch it', data: bar(({ touch }) => touch), backgroundColor: `${ink}80`, barThickness: 18 },
        { label: 'dry', data: bar(({ touch, through }) => [touch[1], through[1]]), backgroundColor: ink, barThickness: 18 },
      ],
    },
    options: {
      indexAxis: 'y',
      animation: false,
      maintainAspectRatio: false,
      grouped: false,
      scales: {
        x: {
          min: -Math.ceil(Math.min(7, latest / 3)),
          max: latest,
          ticks: {
            color: ink,
            font: { size: 14, family: font },
            callback: (value) => daySaid(log.at + Number(value) * DAY_MS, log.at, zone),
            stepSize: latest > 10 ? 3 : latest > 5 ? 2 : 1,
            maxRotation: 0,
          },
          grid: { color: (at: { tick?: { value: number } }) => (at.tick?.value === 0 ? ink : `${ink}22`) },
        },
        y: { ticks: { color: ink, font: { size: 16, family: font } }, grid: { display: false } },
      },
      plugins: {
        legend: { display: false },
        tooltip: {
          callbacks: {
            label: ({ dataset, raw }) =>
              `${dataset.label}: ${(raw as [number, number]).map((at) => daySaid(log.at + at * DAY_MS, log.at, zone)).join(' to ')}`,
          },
        },
      },
    },
  } as ChartConfiguration<'bar'>;
}
function draw(): void {
  chart?.destroy();
  if (canvas.value) chart = new Chart(canvas.value, config() as ChartConfiguration);
}
onMounted(draw);
watch([rows, () => theme.name.value], draw, { flush: 'post' });
onBeforeUnmount(() => chart?.destroy());
const DEGREES = [12, 15, 18, 20, 22, 25, 28] as const;
const WARMTH = [
  { value: null as number | null, title: 'not said' },
  ...DEGREES.map((value) => ({ value: value as number | null, title: `${value} °C` })),
];
const says = computed(() =>
  rows.value.map(({ name, touch }) => `${name} dry ${touch.map((at) => daySaid(at, log.at, zone)).join(' to ')}`).join('; '),
);
const print = (): void =>
  void window.open(sheetUrl({ sheet: 'drying', paper: 'A4', paintingId: props.painting.id, zone }), '_blank', 'noopener');
</script>

<template>
  <section class="drying" aria-label="What dries when">
    <div class="chart" :style="{ height: `${60 + 34 * rows.length}px` }">
      <canvas ref="canvas" role="img" :aria-label="says" data-test="drying" />
    </div>
    <p class="key quiet">
      <span class="swatch wet" /> wet or tacky <span class="swatch touch" /> touch it <span class="swatch dry" /> dry
      <Pick
        :model-value="settings.settings.temperatureC"
        :options="WARMTH"
        label="the room has"
        data-test="warmth"
        @update:model-value="settings.change({ temperatureC: $event ?? null })"
      />
      <button type="button" class="link" data-test="print-drying" @click="print">Print it</button>
    </p>
  </section>
</template>

<style scoped>
.chart {
  position: relative;
}
.key {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: calc(2 * var(--unit));
  font-size: var(--size-note);
}
.swatch {
  width: 28px;
  height: 14px;
  background: currentColor;
}
.wet {
  opacity: 0.2;
}
.touch {
  opacity: 0.5;
}
.link {
  min-height: 44px;
  margin-left: auto;
  text-decoration: underline;
}
</style>
