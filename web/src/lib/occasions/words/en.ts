import { word } from '$lib/text/counted/en';

/** What arrivals, changes of job and leavings are called in English, each in its own words. */
const arrival = {
  /** Those of whom it speaks, in the switch between the three. */
  all: 'Arrivals',
  news: (n: number) => (n === 0 ? 'Nobody is arriving.' : `${word(n)} arriving or settling in.`),
  notReady: (n: number) => (n === 0 ? 'All can be ready.' : `${word(n)} would not be ready.`),
  emptyTitle: 'Nobody is on the way in',
  empty: 'Open the first hire: a name, a role template, a start date and a site are enough.',
  notInTime: 'Not ready on day one',
  columns: { name: 'Newcomer', start: 'Start', ready: 'Ready for day one' },
  /** Of tasks: those that have to be finished before the day. */
  inTime: 'day-one',
  inTimeOf: (done: number, of: number) => `${done} of ${of} day-one tasks`,
  soonestDay: 'Soonest start with everything ready:',
  noSoonest: 'No start in the next two years would have everything ready.',
  ropeLabel: (name: string, done: number, of: number, frayed: boolean) =>
    `${name}: ${done} of ${of} day-one tasks done${frayed ? ', something is late' : ''}`,
  checklist: 'Checklist',
  coming: 'starts',
  past: 'started',
  passed: 'Day one has passed.',
  soonest: (day: string) => `Everything would be ready for a start on ${day}.`,
  whatIf: 'What if the start were',
  beforeIt: 'before day one',
  beforeItInFull: 'it belongs before day one.',
  /** Who has gone through it. */
  settled: (day: string) => `Settled on ${day}.`,
  move: {
    open: 'Move start…',
    title: (name: string) => `Move ${name}’s start`,
    to: 'New start',
    values: 'Pay, job and clock values that began on the old start begin on the new one.',
    act: (day: string) => `Start on ${day}`,
    moved: (name: string, day: string) => `${name} starts on ${day}.`,
    staleTitle: 'Somebody else moved the start in the meantime'
  },
  end: {
    open: 'Came to nothing…',
    title: (name: string) => `${name} is not coming`,
    withdrawn: 'Withdrawn: the person or we stepped back',
    means: 'Open tasks are cancelled, the badge and what was issued are listed for return, other systems are told.',
    done: (name: string) => `${name} is no longer expected.`,
    undone: 'The hire goes on.',
    act: 'Close the hire'
  }
};

export const en = {
  switch: 'Who',
  arrival,
  jobChange: {
    all: 'Job changes',
    news: (n: number) => (n === 0 ? 'Nobody is changing jobs.' : `${word(n)} changing jobs.`),
    notReady: (n: number) => (n === 0 ? 'All can be ready.' : `${word(n)} would not be ready.`),
    emptyTitle: 'Nobody changes jobs',
    empty: 'A change of job is opened from the person’s record: Changes jobs.',
    notInTime: 'Not ready on the day',
    columns: { name: 'Who', start: 'In the new job from', ready: 'Ready for the change' },
    inTime: 'before it',
    inTimeOf: (done: number, of: number) => `${done} of ${of} tasks before the change`,
    soonestDay: 'Soonest change with everything ready:',
    noSoonest: 'No day in the next two years would have everything ready.',
    ropeLabel: (name: string, done: number, of: number, frayed: boolean) =>
      `${name}: ${done} of ${of} tasks before the change done${frayed ? ', something is late' : ''}`,
    checklist: 'Job change',
    coming: 'in a new job from',
    past: 'in a new job since',
    passed: 'The change has happened.',
    soonest: (day: string) => `Everything would be ready for a change on ${day}.`,
    whatIf: 'What if the change were on',
    beforeIt: 'before the change',
    beforeItInFull: 'it belongs before the change.',
    settled: (day: string) => `All of it was done on ${day}.`,
    move: {
      open: 'Move the change…',
      title: (name: string) => `Move ${name}’s change of job`,
      to: 'New day of the change',
      values: 'What the record was to say from the old day it says from the new one.',
      act: (day: string) => `Change on ${day}`,
      moved: (name: string, day: string) => `${name} changes jobs on ${day}.`,
      staleTitle: 'Somebody else moved the change in the meantime'
    },
    end: {
      open: 'Does not happen…',
      title: (name: string) => `${name} does not change jobs`,
      withdrawn: 'Called off: the job stays as it is',
      means: 'Open tasks are cancelled, and the record no longer says that the job changes.',
      done: (name: string) => `${name} stays in the present job.`,
      undone: 'The change of job goes on.',
      act: 'Call it off'
    },
    open: {
      act: 'Changes jobs…',
      title: (name: string) => `${name} changes jobs`,
      day: 'First day in the new job',
      why: 'Why (kept with the change)',
      values: 'What changes from that day',
      more: 'Something else changes',
      template: 'Template',
      none: 'There is no template for a change of job yet.',
      do: 'Open the checklist',
      done: (name: string) => `${name}’s change of job is under way.`
    }
  },
  leaving: {
    all: 'Leavers',
    news: (n: number) => (n === 0 ? 'Nobody is leaving.' : `${word(n)} leaving.`),
    notReady: (n: number) => (n === 0 ? 'All can be handed over in time.' : `${word(n)} would not be through in time.`),
    emptyTitle: 'Nobody is leaving',
    empty: 'A leaving is opened from the person’s record: Leaves.',
    notInTime: 'Not through in time',
    columns: { name: 'Who', start: 'Last day', ready: 'Handed over before the last day' },
    inTime: 'before it',
    inTimeOf: (done: number, of: number) => `${done} of ${of} tasks before the last day`,
    soonestDay: 'Soonest last day with everything done:',
    noSoonest: 'No last day in the next two years would have everything done.',
    ropeLabel: (name: string, done: number, of: number, frayed: boolean) =>
      `${name}: ${done} of ${of} tasks before the last day done${frayed ? ', something is late' : ''}`,
    checklist: 'Leaving',
    coming: 'last day',
    past: 'last day',
    passed: 'The last day has passed.',
    soonest: (day: string) => `Everything would be done for a last day on ${day}.`,
    whatIf: 'What if the last day were',
    beforeIt: 'before the last day',
    beforeItInFull: 'it belongs before the last day.',
    settled: (day: string) => `All of it was done on ${day}.`,
    move: {
      open: 'Move the last day…',
      title: (name: string) => `Move ${name}’s last day`,
      to: 'New last day',
      values: 'The record’s end moves with it.',
      act: (day: string) => `Last day on ${day}`,
      moved: (name: string, day: string) => `${name}’s last day is ${day}.`,
      staleTitle: 'Somebody else moved the last day in the meantime'
    },
    end: {
      open: 'Stays after all…',
      title: (name: string) => `${name} stays`,
      withdrawn: 'Called off: they stay',
      means: 'Open tasks are cancelled, and the record has no end any more.',
      done: (name: string) => `${name} stays.`,
      undone: 'The leaving goes on.',
      act: 'Call it off'
    },
    open: {
      act: 'Leaves…',
      title: (name: string) => `${name} leaves`,
      day: 'Last day',
      why: 'A word on it (kept with the change)',
      values: 'What the record says of it',
      more: 'Something else',
      template: 'Template',
      none: 'There is no template for leavers yet.',
      do: 'Open the checklist',
      done: (name: string) => `${name}’s leaving is under way.`
    }
  },
  makeTemplate: 'Make one under Templates',
  dayMissing: 'Say which day.',
  now: (value: string) => `now ${value}`
};
