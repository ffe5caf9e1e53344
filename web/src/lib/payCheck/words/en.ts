import { days, word } from '$lib/text/counted/en';

/** What Pay check says in English. */
export const en = {
  title: 'Pay check',
  toCheck: (n: number, day: string) => `${word(n)} to check before ${day}.`,
  allChecked: (n: number) => (n === 1 ? 'The one who is paid anew or otherwise is checked.' : `All ${word(n).toLowerCase()} are checked.`),
  nobody: 'Nobody is paid anew or otherwise in this period.',
  stopped: (n: number) => `${word(n)} cannot be paid.`,
  noGroups: 'Pay groups and their periods come first: they say when people are paid.',
  toLists: 'Set up pay groups',
  groups: 'Pay groups',
  group: (name: string, n: number) => `${name}, ${n} to check`,
  period: 'Day in the period',
  sheet: 'Get as a sheet',
  csv: 'CSV',
  back: 'People',
  axis: (from: string, to: string, cutOff: string, paid: string) => `${from} to ${to}, cut-off ${cutOff}, paid ${paid}`,
  thisPeriod: 'this period',
  cutOff: (day: string) => `cut-off ${day}`,
  paid: (day: string) => `paid ${day}`,
  columns: {
    who: 'Who, and what is new',
    against: 'What stands against it',
    last: 'last time',
    now: 'now, gross',
    difference: 'difference',
    checked: 'checked'
  },
  none: '–',
  news: {
    starts: (day: string) => `starts ${day}`,
    arrears: (day: string) => `started ${day}`,
    ends: (day: string) => `last day ${day}`,
    group: (day: string) => `pay group from ${day}`,
    rate: (day: string) => `rate from ${day}`,
    hours: (day: string) => `hours from ${day}`,
    allowance: (day: string) => `allowance from ${day}`,
    secondJob: (day: string) => `second job from ${day}`,
    oneOff: (day: string) => `paid once, due ${day}`
  },
  change: (before: string, after: string) => `${before} → ${after}`,
  findings: {
    notWorkedOut: () => 'cannot be worked out: rate, hours or a component is missing',
    noBankAccount: () => 'no bank account',
    cutOffMissed: (number: string, day: string) => `cut-off missed by ${days(Number(number))}: paid ${day} with arrears`,
    negativeNet: (number: string) => `more is taken off than earned: ${number}`,
    changeWaits: () => 'a change of pay waits for approval',
    outsideBand: (number: string) => (number.startsWith('-') ? `${number.slice(1)} % below the band` : `${number} % above the band`),
    unlikeTemplate: (number: string) => `rate unlike the template, which says ${number}`,
    startsAfterPeriod: () => 'starts after the period: not paid with it'
  },
  check: (name: string) => `${name} is checked`,
  by: (name: string, when: string) => `by ${name}, ${when}`,
  changedSince: (what: string) => (what === '' ? 'changed since' : `changed since: ${what}`),
  facts: {
    start: 'start',
    end: 'last day',
    periods: 'periods paid',
    gross: 'gross',
    net: 'net',
    employerCost: 'cost to the firm'
  } as Record<string, string>,
  checkClean: (n: number) => (n === 1 ? 'Tick the one nothing stands against' : `Tick the ${n} nothing stands against`),
  ticked: (n: number) => (n === 1 ? 'Checked.' : `${n} checked.`),
  unticked: 'Not checked any more.',
  undo: 'Undo',
  tick: 'Checked',
  untick: 'Not checked',
  openRecord: 'Open the record',
  net: 'net',
  paysNothing: 'This run pays them nothing.',
  typed: (name: string, day: string) => `The rate was typed by ${name} on ${day}.`,
  typedWhy: (name: string, day: string, why: string) => `The rate was typed by ${name} on ${day}: “${why}”.`,
  lastWas: (before: string, after: string) => `Last time ${before}, now ${after}.`,
  totals: 'Totals of these lines',
  total: 'All',
  people: 'people',
  gross: 'gross',
  deductions: 'deductions',
  cost: 'cost to the firm',
  byDepartment: 'By department',
  byCostCentre: 'By cost centre',
  without: 'without',
  ungrouped: (n: number) =>
    n === 1
      ? 'One newcomer has no pay group, and is paid with no run:'
      : `${word(n)} newcomers have no pay group, and are paid with no run:`
};
