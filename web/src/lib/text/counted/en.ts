// Numbers and spans in English words.
const words = [
  'No',
  'One',
  'Two',
  'Three',
  'Four',
  'Five',
  'Six',
  'Seven',
  'Eight',
  'Nine',
  'Ten',
  'Eleven',
  'Twelve',
  'Thirteen',
  'Fourteen',
  'Fifteen',
  'Sixteen',
  'Seventeen',
  'Eighteen',
  'Nineteen',
  'Twenty'
];
/** A number at the head of a sentence, in letters up to twenty. */
export const word = (n: number) => words[n] ?? String(n);
export const days = (n: number) => `${n} ${n === 1 ? 'day' : 'days'}`;
export const workingDays = (n: number) => `${n} working ${n === 1 ? 'day' : 'days'}`;
