import { word } from '$lib/text/counted/en';

/** What My tasks says in English. */
export const en = {
  news: (n: number) =>
    n === 0 ? 'Nothing for you to do today.' : n === 1 ? 'One thing for you to do.' : `${word(n)} things for you to do.`,
  late: (n: number) => (n === 1 ? 'One is late.' : `${word(n)} are late.`),
  now: 'Can be done now',
  later: 'Comes later',
  for: 'for',
  starts: (day: string) => `starts ${day}`,
  by: (day: string) => `by ${day}`,
  from: (day: string) => `from ${day}`,
  noBound: 'no date',
  emptyTitle: 'Your list is empty',
  empty: 'Tasks of your team and of your newcomers come here, the most urgent first.',
  more: (n: number) => `and ${n} more, later ones`,
  instructions: 'What to do'
};
