/** A shift of a pattern, as it is kept. */
export interface Shift {
  letter: string;
  start: string;
  end: string;
  break: number;
}

/** How a shift's letter looks wherever it is drawn: by its place among the pattern's shifts. */
export const shiftLook = (letter: string | null, shifts: Shift[]) => {
  const at = shifts.findIndex((s) => s.letter === letter);
  if (letter === null || letter === '-' || at < 0) return 'bg-transparent text-faint';
  return ['bg-sea-tint text-ink', 'bg-sea text-on-sea', 'bg-ochre-tint text-ink', 'bg-band text-ink'][at % 4]!;
};

/** "6", "630" and "6.30" as 06:00 and 06:30; anything else as it was typed, for the server to refuse at its place. */
export const clockTime = (typed: string) => {
  const match = /^(\d{1,2})[:.h]?(\d{2})?$/.exec(typed.trim());
  return match ? `${match[1]!.padStart(2, '0')}:${match[2] ?? '00'}` : typed.trim();
};
