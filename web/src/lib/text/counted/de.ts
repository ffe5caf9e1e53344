// Numbers and spans in German words.
const words = [
  'Niemand',
  'Eine',
  'Zwei',
  'Drei',
  'Vier',
  'Fünf',
  'Sechs',
  'Sieben',
  'Acht',
  'Neun',
  'Zehn',
  'Elf',
  'Zwölf',
  'Dreizehn',
  'Vierzehn',
  'Fünfzehn',
  'Sechzehn',
  'Siebzehn',
  'Achtzehn',
  'Neunzehn',
  'Zwanzig'
];
/** A number at the head of a sentence, in letters up to twenty. */
export const word = (n: number) => words[n] ?? String(n);
export const days = (n: number) => `${n} ${n === 1 ? 'Tag' : 'Tage'}`;
export const workingDays = (n: number) => `${n} ${n === 1 ? 'Arbeitstag' : 'Arbeitstage'}`;
