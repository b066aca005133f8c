import type { Needs, Operation, PictureDto } from '@dusk/wire';
import { UPLOAD_MOST_BYTES } from '@dusk/wire/limits';
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed } from 'vue';
import { useNotices } from '../floor/notices.ts';
import { sendPicture } from '../studio/api.ts';
import { present } from '../studio/rows.ts';
import { useStudio } from '../studio/useStudio.ts';
import type { PaletteChoice } from './palettesToChoose.ts';
import { newId } from '../floor/ids.ts';

const LONGEST_NAME = 120;

/** A file's name as the painter knows it, without its ending. */
const pictureName = ({ name }: File): string =>
  name
    .replace(/\.[^.]*$/, '')
    .slice(0, LONGEST_NAME)
    .trim() || 'picture';

export const usePaintings = defineStore('paintings', () => {
  const studio = useStudio();
  const notices = useNotices();
  const openedId = useLocalStorage<string>('dusk.openPainting', '');
  const all = computed(() => present(studio.rows.paintings));
  const byId = computed(() => new Map(all.value.map((p) => [p.id, p])));
  /** The painting whose reference, piles and ledge are shown. */
  const onEasel = computed(() => byId.value.get(openedId.value));
  const picturesOf = (paintingId: string) => present(studio.rows.references).filter((r) => r.paintingId === paintingId);
  /** Pictures to paint from; photos of the canvas, and of how far it came on a day, are none. */
  const referencesOf = (paintingId: string) => picturesOf(paintingId).filter(({ view }) => view.canvas === undefined && !view.dayEnd);
  /** Photos that were taken at the end of a day. */
  const dayPhotosOf = (paintingId: string) => picturesOf(paintingId).filter(({ view }) => view.dayEnd);
  /** Photos of the canvas that are held against a picture, the newest first. */
  const canvasesOf = (referenceId: string) =>
    present(studio.rows.references)
      .filter(({ view }) => view.canvas?.of === referenceId)
      .reverse();

  const setOnEasel = (id: string): void => void (openedId.value = id);

  /**
   * @param palette made with it, in one change
   * @returns the id of the new painting, if it was made
   */
  async function add(painting: Omit<Needs<'painting.add'>, 'id'>, palette?: PaletteChoice): Promise<string | undefined> {
    const id = newId();
    const first: Operation[] = palette
      ? [{ do: 'palette.add', id: palette.id, name: palette.name, tubeIds: palette.tubes.map((tube) => tube.id) }]
      : [];
    return (await studio.make([...first, { do: 'painting.add', id, ...painting }], `Began “${painting.title}”`)) ? id : undefined;
  }

  const change = (id: string, part: Omit<Needs<'painting.change'>, 'id' | 'version'>): Promise<boolean> =>
    studio.make([{ do: 'painting.change', id, ...part, version: byId.value.get(id)!.version }], `Changed “${byId.value.get(id)!.title}”`);

  const remove = (id: string): Promise<boolean> =>
    studio.make([{ do: 'painting.delete', id, version: byId.value.get(id)!.version }], `“${byId.value.get(id)!.title}” put away`);

  function isTooLarge({ size }: File): boolean {
    if (size <= UPLOAD_MOST_BYTES) return false;
    notices.refused(
      `This picture is larger than ${UPLOAD_MOST_BYTES / 1024 / 1024} MB, so it was not kept. Save it smaller and bring it again.`,
    );
    return true;
  }

  /** Sends a picture at once. @returns it as the studio keeps it */
  const sendAhead = async (file: File): Promise<PictureDto | undefined> =>
    isTooLarge(file) ? undefined : notices.attempt(() => sendPicture(file));

  /** What a picture is named by, once it is held here or in the studio. */
  const pictureIdOf = async (file: File): Promise<string | undefined> =>
    (await studio.holdPicture(file)) ?? (await notices.attempt(() => sendPicture(file)))?.id;

  /**
   * The picture goes first, by what it holds; then the change that makes it a reference.
   * @param id of the reference, by which it can be chosen before it is there
   * @returns whether it was made
   */
  async function addReference(paintingId: string, file: File, id: string): Promise<boolean> {
    if (isTooLarge(file)) return false;
    const pictureId = await pictureIdOf(file);
    if (pictureId === undefined) return false;
    const name = pictureName(file);
    return studio.make([{ do: 'reference.add', id, paintingId, pictureId, name }], `Brought “${name}”`);
  }

  /** One photo of how far the painting came. @returns whether it was kept */
  async function addDayPhoto(paintingId: string, file: File, name: string): Promise<boolean> {
    if (isTooLarge(file)) return false;
    const pictureId = await pictureIdOf(file);
    if (pictureId === undefined) return false;
    const id = newId();
    return studio.make(
      [
        { do: 'reference.add', id, paintingId, pictureId, name },
        { do: 'reference.change', id, version: 1, view: { dayEnd: true } },
      ],
      `Kept a photo: ${name}`,
    );
  }

  async function removeReference(id: string): Promise<void> {
    const { version, name } = studio.rows.references.get(id)!;
    await studio.make([{ do: 'reference.delete', id, version }], `“${name}” put away`);
  }

  return {
    all,
    byId,
    onEasel,
    setOnEasel,
    referencesOf,
    canvasesOf,
    add,
    change,
    remove,
    sendAhead,
    pictureIdOf,
    addReference,
    addDayPhoto,
    dayPhotosOf,
    removeReference,
  };
});
