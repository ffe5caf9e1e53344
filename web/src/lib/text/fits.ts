/** A text as searches compare it: without accents and capitals. */
export const fold = (s: string) => s.normalize('NFKD').replace(/\p{M}/gu, '').toLowerCase();

/** Whether every word typed stands somewhere in a text. */
export function fits(text: string, typed: string): boolean {
  const folded = fold(text);
  return fold(typed)
    .split(/\s+/)
    .every((word) => folded.includes(word));
}
