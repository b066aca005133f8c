import { useEventListener } from '@vueuse/core';
import { ref } from 'vue';
import { usePaintings } from '../stores/paintings.ts';
import { useNotices } from '../floor/notices.ts';
import { useLooking } from '../stores/looking.ts';
import { useReference } from '../stores/reference.ts';
import { useSight } from '../floor/sight.ts';
import { newId } from '../floor/ids.ts';

/** Proportions that differ by more than this put marks elsewhere. */
const OTHER_SHAPE = 0.01;

/** Whether a file begins as the pictures do that browsers read: JPEG, PNG, WebP, AVIF. */
async function canBeRead(file: File): Promise<boolean> {
  const head = String.fromCharCode(...new Uint8Array(await file.slice(0, 12).arrayBuffer()));
  return /^(\xff\xd8\xff|\x89PNG|RIFF[^]{4}WEBP|[^]{4}ftypavi[fs])/.test(head);
}

/** Pictures that are picked, dropped, pasted or photographed. */
export function useBringing(arrived: () => void) {
  const paintings = usePaintings();
  const store = useReference();
  const notices = useNotices();
  const looking = useLooking();
  const sight = useSight();
  const bringing = ref(false);

  async function bring(files: FileList | readonly File[] | null | undefined): Promise<void> {
    const file = files?.[0];
    if (!file || !paintings.onEasel) return;
    bringing.value = true;
    try {
      const id = newId();
      const was = store.reference?.id;
      // What is brought is seen as it is.
      sight.grey = sight.squint = false;
      looking.lit = undefined;
      // What this browser can read is seen while it is on its way; anything else once the studio has it.
      const isSeenAhead = await canBeRead(file);
      if (isSeenAhead) store.choose(id);
      else if (was) store.choose(was);
      if (isSeenAhead) arrived();
      const isKept = await paintings.addReference(paintings.onEasel.id, file, id);
      if (isKept && !isSeenAhead) {
        store.choose(id);
        arrived();
      } else if (!isKept && was) store.choose(was);
    } finally {
      bringing.value = false;
    }
  }

  /** Another picture in the place of the one that is looked at; its samples keep their places. */
  async function replace(file: File): Promise<void> {
    const { reference } = store;
    if (!reference) return;
    bringing.value = true;
    try {
      const picture = await paintings.sendAhead(file);
      if (!picture) return;
      looking.plain();
      const is = picture.width / picture.height;
      const was = reference.width / reference.height;
      if (await store.change({ pictureId: picture.id }, `Another picture in the place of “${reference.name}”`))
        if (Math.abs(is / was - 1) > OTHER_SHAPE)
          notices.saved('The new picture has other proportions: look whether the marks still lie where they should.');
    } finally {
      bringing.value = false;
    }
  }

  useEventListener(document, 'paste', (event: ClipboardEvent) => {
    const files = [...(event.clipboardData?.files ?? [])].filter(({ type }) => type.startsWith('image/'));
    if (files.length === 0) return;
    event.preventDefault();
    void bring(files);
  });

  return { bringing, bring, replace };
}
