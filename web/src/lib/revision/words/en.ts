import { word } from '$lib/text/counted/en';

/** What Pay revision says in English. */
export const en = {
  title: 'Pay revision',
  ask: 'Whose pay rises, by how much, and from when?',
  raised: (n: number, of: number, day: string) =>
    n === of
      ? `${n === 1 ? 'One is' : `All ${word(n).toLowerCase()} are`} paid more from ${day}.`
      : `${word(n)} of ${of} are paid more from ${day}.`,
  nobody: 'Nobody would be paid more by this rule.',
  budget: (amount: string, percent: string) => `${amount} a year, ${percent} % of what they are paid now.`,
  back: 'People',
  sheet: 'Get as a sheet',
  sheetNote: 'Change single rates in the sheet and bring it in under Exchange, holding from the same day.',
  whose: 'Whose pay',
  rule: 'By what rule',
  whichever: 'whichever',
  grade: 'Grade',
  job: 'Job',
  site: 'Site',
  payGroup: 'Pay group',
  percent: 'Rise in percent',
  atLeast: 'At least, an hour',
  upToBand: 'Up to the maximum of the band',
  from: 'From',
  notNumber: 'Enter a number such as 2.5.',
  columns: { who: 'Who', before: 'now', after: 'from then', more: 'more', year: 'a year more', because: 'What decided' },
  per: { hour: 'an hour', day: 'a day', week: 'a week', month: 'a month', year: 'a year' } as Record<string, string>,
  limits: { none: '', atLeast: 'at least an hour', bandMaximum: 'up to the band' },
  kinds: { all: 'All', atLeast: 'At least an hour', upToBand: 'Up to the band', stays: 'Stay', ahead: 'Another rate entered ahead' },
  stays: 'at the top of the band, stays',
  ahead: (day: string) => `the rate entered from ${day} stays`,
  leftOut: (n: number) => `${word(n)} of the group ${n === 1 ? 'stays' : 'stay'} as now`,
  leftOutWhy: {
    noRate: 'no rate, or nothing says what it is for',
    needsApproval: 'others have to agree: ask on the record',
    notYours: 'you may not change their pay'
  },
  why: 'Why, in everybody’s history',
  make: (n: number) => `Raise the pay of ${n}`,
  made: (n: number) => `The pay of ${word(n).toLowerCase()} is raised.`,
  undo: 'Undo',
  undone: 'Everybody is paid as before.',
  madeBefore: 'Made before',
  undoOf: (day: string) => `Undo the revision from ${day}`,
  everybody: 'everybody',
  percentOf: (n: string) => `+ ${n} %`,
  atLeastOf: (n: string) => `at least ${n} an hour`,
  upTo: 'up to the band',
  people: (n: number) => `${n} people`,
  by: (name: string, day: string) => `${name}, ${day}`,
  undoneBy: (name: string) => `undone by ${name}`
};

/** The shape that every language has. */
export type Words = typeof en;
