// Pictures come to the reference by one field for files, whatever they are wanted for; what was brought has the focus.
import { nextTick, ref, watch, type Ref } from 'vue';
import { useReference } from '../stores/reference.ts';
import { ourPicture } from '../stores/ourPicture.ts';
import { useBringing } from './useBringing.ts';

type Wanted = 'another' | 'instead';

/**
 * @param field where files are chosen
 * @param whole the place: the picture in it has the focus once it was brought and is there, so that the arrow keys move over it
 */
export function useChooser(field: Readonly<Ref<HTMLInputElement | null>>, whole: Readonly<Ref<HTMLElement | null>>) {
  const store = useReference();
  const arrives = ref(false);
  const { bringing, bring, replace } = useBringing(() => (arrives.value = true));
  watch(
    () => store.pixels,
    async (pixels) => {
      if (!pixels || !arrives.value) return;
      arrives.value = false;
      await nextTick();
      whole.value?.querySelector<HTMLElement>('[role=application]')?.focus({ preventScroll: true });
    },
  );
  let wanted: Wanted = 'another';
  function choose(what: Wanted, fromCamera = false): void {
    wanted = what;
    if (fromCamera) field.value!.setAttribute('capture', 'environment');
    else field.value!.removeAttribute('capture');
    field.value!.click();
  }
  async function bringChosen(): Promise<void> {
    const [file] = [...(field.value!.files ?? [])];
    // Emptied at once, so that the same file can be chosen again: the place may be gone when the picture has come.
    field.value!.value = '';
    const what = wanted;
    wanted = 'another';
    if (file) await (what === 'instead' ? replace(file) : bring([file]));
  }
  /** Who has no picture at hand tries it with the sample studio's. */
  async function tryOurs(): Promise<void> {
    const ours = await ourPicture();
    if (ours) await bring([ours]);
  }
  return { bringing, bring, choose, bringChosen, tryOurs };
}
