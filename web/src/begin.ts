import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { useNotices } from './floor/notices.ts';
import { fetchAhead, router } from './frame/router.ts';
import { useTrueSize } from './floor/screen.ts';
import { vuetify } from './frame/theme/vuetify.ts';
import Window from './frame/Window.vue';
import { useStudio } from './studio/useStudio.ts';

/** The rest of a task's work waits for the next, so that what the hand does meanwhile is heard. */
const pause = (): Promise<void> => new Promise((done) => setTimeout(done));

/** Opens the window. The stores are full before the first place opens, so that an address leads where it did. */
export async function begin(): Promise<void> {
  const app = createApp(Window).use(createPinia());
  await useNotices().attempt(() => useStudio().load('studio'));
  await pause();
  app.use(vuetify);
  useTrueSize();
  await pause();
  app.use(router);
  app.mount('#app');
  await fetchAhead();
}
