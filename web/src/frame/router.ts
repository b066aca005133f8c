import { createRouter, createWebHistory } from 'vue-router';
import { useNotices } from '../floor/notices.ts';
import { usePaintings } from '../stores/paintings.ts';

export const router = createRouter({
  history: createWebHistory(),
  routes: [
    { path: '/', redirect: '/paintings' },
    { path: '/paintings', name: 'paintings', component: () => import('../paintings/PaintingsPlace.vue') },
    { path: '/tubes', name: 'tubes', component: () => import('../tubes/TubesPlace.vue') },
    { path: '/tubes/:tubeId', name: 'tube', component: () => import('../tubes/TubePage.vue') },
    { path: '/palettes/:paletteId?', name: 'palettes', component: () => import('../palettes/PalettesPlace.vue') },
    { path: '/painting/:paintingId/reference', name: 'reference', component: () => import('../reference/ReferencePlace.vue') },
    { path: '/painting/:paintingId/picture', name: 'picture', component: () => import('../picture/PictureAlone.vue') },
    { path: '/painting/:paintingId/mixing/:pileId?', name: 'mixing', component: () => import('../piles/MixingPlace.vue') },
    { path: '/painting/:paintingId/easel', name: 'easel-plan', component: () => import('../easel/EaselPlace.vue') },
    { path: '/painting/:paintingId/easel/:pileId', name: 'easel', component: () => import('../easel/EaselPlace.vue') },
    { path: '/painting/:paintingId/log', name: 'log', component: () => import('../log/LogPlace.vue') },
    { path: '/cards/:cardId?', name: 'cards', component: () => import('../cards/CardsPlace.vue') },
    { path: '/:rest(.*)*', redirect: '/paintings' },
  ],
});

const FETCH_AHEAD_MS = 400;

/**
 * Fetches every place once the first is shown, so that all can be gone to while the studio is away; nothing of it is
 * in the way of the first, and nothing is run before it is gone to. What to fetch stands in the page (web/vite.parts.ts).
 */
export async function fetchAhead(): Promise<void> {
  // A first place that cannot be had is told by the router's own error.
  await router.isReady().catch(() => undefined);
  await new Promise((done) => setTimeout(done, FETCH_AHEAD_MS));
  const listed = document.querySelector('#ahead')?.textContent;
  for (const file of JSON.parse(listed ?? '[]') as string[]) {
    const link = document.createElement('link');
    // Behind whatever the hand asks for meanwhile.
    Object.assign(link, { rel: file.endsWith('.js') ? 'modulepreload' : 'prefetch', href: file, crossOrigin: '', fetchPriority: 'low' });
    document.head.append(link);
  }
}

router.beforeEach((to) => {
  const { paintingId } = to.params;
  if (typeof paintingId !== 'string') return true;
  const paintings = usePaintings();
  if (!paintings.byId.has(paintingId)) return { name: 'paintings' };
  paintings.setOnEasel(paintingId);
  return true;
});

// A place that cannot be fetched says so; the one that is open stays.
router.onError(() => {
  useNotices().refused('This place could not be fetched: the studio does not answer. Try again once it does.');
});
