// In steps, each a task of its own: evaluated at once, all of it would keep the page's thread from the hand.
await import('./frame/theme/vuetify.ts');
const { begin } = await import('./begin.ts');
await begin();

export {};
