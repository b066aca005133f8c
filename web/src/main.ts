/** In steps, each a task of its own: evaluated at once, all of it would keep the page's thread from the hand. */
async function open(): Promise<void> {
  await import('./frame/theme/vuetify.ts');
  const { begin } = await import('./begin.ts');
  await begin();
}

// Not awaited here: parts of the page take from this file and would wait for it.
void open();
