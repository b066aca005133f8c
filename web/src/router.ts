import { createRouter, createWebHistory } from 'vue-router';
import { usePaintings } from './stores/paintings.ts';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/paintings' },
    { path: '/paintings', name: 'paintings', component: () => import('./places/PaintingsPlace.vue') },
    { path: '/tubes', name: 'tubes', component: () => import('./places/TubesPlace.vue') },
    { path: '/palettes/:paletteId?', name: 'palettes', component: () => import('./places/PalettesPlace.vue') },
    { path: '/painting/:paintingId/reference', name: 'reference', component: () => import('./places/ReferencePlace.vue') },
    { path: '/painting/:paintingId/mixing/:pileId?', name: 'mixing', component: () => import('./places/MixingPlace.vue') },
    { path: '/painting/:paintingId/easel/:pileId', name: 'easel', component: () => import('./places/EaselPlace.vue') },
    { path: '/:rest(.*)*', redirect: '/paintings' },
  ],
});

router.beforeEach((to) => {
  const { paintingId } = to.params;
  if (typeof paintingId !== 'string') return true;
  const paintings = usePaintings();
  if (!paintings.byId.has(paintingId)) return { name: 'paintings' };
  paintings.openPainting(paintingId);
  return true;
});
