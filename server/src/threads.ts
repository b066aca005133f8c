/** Programs of their own threads, from where they lie to whoever starts them: beside this file, in the sources as in a bundle. */
export const FOLD_THREAD = new URL('./beliefs/foldWorker.mjs', import.meta.url);
