import { word } from '$lib/text/counted/en';

/** What the record says in English. */
export const en = {
  sectionsLabel: 'Sections',
  doNotFit: (n: number) => (n === 1 ? 'One value does not fit its field:' : `${n} values do not fit their fields:`),
  filledOf: (filled: number, of: number) => `${filled} of ${of}`,
  filled: (filled: number, of: number) => `${filled} of ${of} filled`,
  needed: (n: number) => `${n} still needed`,
  coming: (value: string, day: string) => `${value} from ${day}`,
  neededFrom: (stage: string) => (stage === 'now' ? 'needed now' : stage === 'arrive' ? 'needed before day one' : `needed from ${stage}`),
  draftKept: (when: string) => `What you typed on ${when} was not saved yet. It is still here.`,
  otherStints: 'Also worked here',
  choose: 'Choose a file',
  takes: (kinds: string[], megabytes: number) => `${kinds.length > 0 ? kinds.join(', ') : 'any kind'}, at most ${megabytes} MB`,
  remove: 'Remove',
  hide: 'Hide',
  replace: 'Replace',
  takeAway: (name: string) => `Take ${name} away`,
  rows: {
    add: 'Add',
    addTo: (label: string) => `Add to ${label}`,
    close: 'Done',
    one: 'a row',
    gone: 'taken away',
    takeAway: 'Take away',
    putBack: 'Put back',
    none: 'None so far.',
    fresh: 'new',
    unnamed: 'nothing said yet',
    today: (label: string) => `${label} today`,
    state: 'State',
    needed: 'needed',
    missing: 'missing',
    expired: (day: string) => (day ? `ran out on ${day}` : 'ran out'),
    expiring: (day: string) => (day ? `runs out on ${day}` : 'runs out'),
    valid: (day: string) => (day ? `valid until ${day}` : 'valid')
  },
  grade: 'Grade',
  band: 'Pay band',
  readings: 'Readings',
  againstBand: 'Against the band',
  noBand: 'Pay, hours, pay group and job are needed for this.',
  colleagues: (n: number) =>
    n === 0 ? 'Nobody else holds this job here.' : n === 1 ? 'One other holds this job here.' : `${word(n)} others hold this job here.`,
  fromColleagues: (percent: number, shown: string) =>
    percent === 0 ? 'Just in their middle.' : `${shown} % ${percent > 0 ? 'above' : 'below'} their middle.`,
  position: { below: 'below the band', within: 'within the band', above: 'above the band' },
  firstPay: {
    title: 'First pay',
    when: (day: string, cutOff: string) => `${day}, cut-off ${cutOff}`,
    part: (part: string, whole: string, method: string) =>
      `${part} of ${whole} ${{ calendarDays: 'calendar days', workingDays: 'working days', annual260: 'working days of the year', rosteredHours: 'rostered hours' }[method] ?? 'days'}`,
    wholePeriod: 'A whole period',
    missed: (periods: number, cutOff: string) =>
      `${periods === 1 ? 'One period comes' : `${word(periods)} periods come`} late: the cut-off was ${cutOff}.`,
    asIfToday: 'Worked out as if complete today.',
    arrearsOf: (day: string) => `Period from ${day}, late`,
    periodFrom: (day: string) => `Period from ${day}`,
    net: 'Into the bank',
    beforeDeductions: 'Before deductions',
    drawing: (start: string, cutOff: string, payDay: string) => `Starts ${start}; cut-off ${cutOff}; paid ${payDay}`
  },
  cost: {
    title: 'Costs the firm',
    per: 'per productive hour',
    over: (cost: string, hours: string) => `${cost} a year over ${hours} h`
  },
  leaveIn: (year: number) => `Leave in ${year}`,
  leaveOf: (days: string, of: string) => `${days} of ${of} days`,
  comesTo: 'Comes to',
  per: { hour: 'an hour', day: 'a day', week: 'a week', month: 'a month', year: 'a year' },
  overTime: {
    title: 'Pay over time',
    from: (day: string) => `from ${day}`,
    drawing: (steps: string[]) => `What a year pays: ${steps.join('; ')}`
  },
  checks: 'Checks',
  clean: 'Nothing stands against it.',
  tooFewColleagues: 'Too few colleagues have this job to show their pay without saying whose it is.',
  somebodyElse: 'somebody else',
  badge: {
    overlap: (badge: string, other: string) => `Badge ${badge} is carried by ${other} too.`,
    tooSoon: (badge: string, other: string) => `Badge ${badge} was ${other}’s until too short a time ago.`,
    twoBadges: (badge: string, other: string) => `Badge ${badge} is a second one (${other}).`
  },
  changes: (n: number) => (n === 1 ? '1 change' : `${n} changes`),
  how: 'A mistake fixed, or a change from a date?',
  sayHow: 'Say which it is, then it is saved.',
  folded: (n: number) => (n === 1 ? 'and one more, empty' : `and ${word(n).toLowerCase()} more, empty`),
  fix: 'Fix',
  from: (day: string) => `From ${day}`,
  fromDate: 'From',
  why: 'Why',
  discard: 'Discard',
  save: 'Save',
  saved: 'Saved.',
  ask: 'Ask',
  whyAsked: 'Why, for those who are asked',
  byAsking: 'by asking',
  agreeing: (steps: string[][]) =>
    `${steps.map((who) => (who.length > 1 ? `one of ${who.join(', ')}` : (who[0] ?? 'nobody'))).join(', then ')}`.replace(/^./, (c) =>
      c.toUpperCase()
    ) + (steps.length === 1 ? ' has to agree.' : ' have to agree.'),
  atOnce: (fields: string[]) => `Saved at once: ${fields.join(', ')}.`,
  asked: (who: string[]) => (who.length > 0 ? `Asked. It waits for ${who.join(' or ')}.` : 'Asked.'),
  waits: (value: string, from: string | null, by: string) => `${by} asks for ${value || 'nothing'}${from ? ` from ${from}` : ''}: it waits`,
  waiting: (n: number) => (n === 1 ? 'A change is asked for and waits:' : `${word(n)} changes are asked for and wait:`),
  leave: 'There are changes that are not saved. Leave them?',
  staleTitle: 'Somebody else saved this record in the meantime',
  stale: 'Choose for each field. Nothing is lost until you save.',
  field: 'Field',
  theirs: 'Theirs, saved',
  yours: 'Yours',
  goOn: 'Go on with these',
  asOf: (day: string) => `as it will be on ${day}`,
  nobody: 'Nobody',
  clear: 'Empty this field',
  byJob: {
    family: 'Job family',
    classification: 'Occupation code',
    overtime: 'Overtime',
    safety: 'Safety-critical',
    yes: 'yes',
    certificates: 'Certificates needed',
    desirable: (name: string) => `${name} (desirable)`,
    items: 'Items to issue'
  }
};
