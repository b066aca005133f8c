/** Letters that are no letter with a mark over or under it. */
const ALONE: Readonly<Record<string, string>> = { ß: 'ss', æ: 'ae', œ: 'oe', ø: 'o', ł: 'l', đ: 'd', ð: 'd', þ: 'th', ı: 'i' };
/** Plain letters need no folding, and nearly all texts are of them. */
const PLAIN = /^[\x00-\x7f]*$/;

/** A text as it is looked for: in small letters without their marks, so that `zurich` finds `Zürich`. */
export function folded(text: string): string {
  if (PLAIN.test(text)) return text.toLowerCase();
  return text
    .toLowerCase()
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[ßæœøłđðþı]/g, (letter) => ALONE[letter]!);
}
