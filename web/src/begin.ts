import { createPinia } from 'pinia';
import { createApp } from 'vue';
import { useNotices } from './shell/notices.ts';
import { fetchAhead, router } from './shell/router.ts';
import { useTrueSize } from './shell/screen.ts';
import { vuetify } from './shell/theme/vuetify.ts';
import Window from './shell/Window.vue';
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
