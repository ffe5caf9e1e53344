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
  instructions: 'What to do',
  away: {
    open: 'Away?',
    title: 'When you are away',
    about:
      'Whoever stands in does your tasks on those days, and is asked for your word. Your pay and your team’s records stay yours to see.',
    from: 'First day',
    to: 'Last day',
    standIn: 'Who stands in',
    nobody: 'nobody stands in',
    enter: 'Enter',
    entered: 'It is entered.',
    end: 'Take away',
    back: 'I am back',
    ended: 'It is taken away.',
    line: (from: string, to: string, standIn: string | null) =>
      `${from === to ? from : `${from} to ${to}`}, ${standIn === null ? 'nobody stands in' : `${standIn} stands in`}`,
    standsInFor: (name: string, to: string) => `You do the tasks of ${name} until ${to}.`,
    now: (to: string, standIn: string | null) =>
      standIn === null ? `You are away until ${to}, and nobody stands in.` : `You are away until ${to}; ${standIn} stands in.`
  }
};
