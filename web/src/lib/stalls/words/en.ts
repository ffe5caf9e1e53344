import { days, word, workingDays } from '$lib/text/counted/en';

/** What Where it stalls says in English. */
export const en = {
  title: 'Where it stalls',
  link: 'Where it stalls',
  holdsUp: (name: string, tenths: number) =>
    `${name} holds up ${tenths === 10 ? 'every start' : `${word(tenths).toLowerCase()} starts in ten`}.`,
  takes: (took: string, said: number) => `It takes ${took} working ${took === '1' ? 'day' : 'days'}, not ${said}.`,
  nothing: 'Nothing held up a start.',
  none: 'Nothing was done in this time.',
  by: { label: 'Show by', task: 'By task', owner: 'By owner', template: 'By template' },
  from: 'Done from',
  to: 'to',
  hires: (n: number) => (n === 1 ? 'one hire' : `${n} hires`),
  columns: {
    what: 'What',
    days: 'working days',
    half: 'half within',
    nine: '9 in 10',
    late: 'late',
    heldUp: 'held it up',
    template: 'in the template'
  },
  count: (n: number, open: number) => [n === 1 ? 'one done' : `${n} done`, open > 0 ? `${open} open` : ''].filter(Boolean).join(' · '),
  spread: (p10: string, p25: string, half: string, p75: string, p90: string, said: number | null) =>
    `One in ten took up to ${p10}, a quarter ${p25}, half ${half}, three quarters ${p75}, nine in ten ${p90} working days.${said === null ? '' : ` The template says ${said}.`}`,
  share: (percent: string) => `${percent} %`,
  change: (work: number, suggested: number) => `${work} → ${days(suggested)}`,
  within: (days: number) => `8 of 10 were done within ${workingDays(days)}.`,
  would: (days: number, newly: number, of: number) =>
    of === 0
      ? 'No hire under way has it open.'
      : `With ${days} in the template, ${newly === 0 ? 'none' : newly} of the ${of === 1 ? 'one hire' : `${of} hires`} under way would show now that they are short.`,
  wedge: 'The wedge marks what the template promises, the stroke what half of them took.',
  behind: (n: number) => (n === 1 ? 'The one behind it' : `The ${n} behind it`),
  put: (days: number) => `Put ${days} into a draft`,
  drafted: (names: string) => `It is in a draft of ${names}.`,
  open: 'Open the draft',
  list: {
    hire: 'Hire',
    task: 'Task',
    possible: 'Could be begun',
    done: 'Done',
    days: 'Days',
    stillOpen: 'open',
    heldUp: 'held it up',
    starts: (day: string) => `first day ${day}`
  },
  close: 'Close'
};
