// The sheets that open over the piles: each comes with its first press, and is closed by itself.
import { ref, type Ref } from 'vue';
import { onceTrue } from '../floor/opening.ts';
import { useAskedFor } from '../floor/useAskedFor.ts';

const SHEETS = ['sharing', 'logging', 'making', 'noting', 'recalling', 'goingOut', 'planning', 'photographing', 'printing'] as const;
type Sheet = (typeof SHEETS)[number] | 'remaking';

export function useSheets(): {
  readonly open: { readonly [S in Sheet]: Ref<boolean> };
  /** Whether each was ever opened. */
  readonly asked: { readonly [S in Sheet]: Readonly<Ref<boolean>> };
  /** A press that opens one. */
  readonly opens: (sheet: Sheet) => () => void;
} {
  const open = {
    ...(Object.fromEntries(SHEETS.map((sheet) => [sheet, ref(false)])) as { [S in (typeof SHEETS)[number]]: Ref<boolean> }),
    // The piles from another palette: asked for here, or where it is said that some are stranded.
    remaking: useAskedFor('remake'),
  };
  const asked = Object.fromEntries(Object.entries(open).map(([sheet, isOpen]) => [sheet, onceTrue(isOpen)])) as {
    [S in Sheet]: Readonly<Ref<boolean>>;
  };
  return { open, asked, opens: (sheet) => () => void (open[sheet].value = true) };
}
