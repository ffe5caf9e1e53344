/** What Exchange says in English. Kept apart from the rest, so that it is fetched with the place. */
export const en = {
  title: 'Exchange',
  intro: 'Sheets that came in, and where each of them is.',
  fill: 'Fill from a spreadsheet',
  none: 'No sheet has come in yet.',
  columns: { when: 'When', file: 'Sheet', list: 'Into', by: 'By', state: 'Where it is', rows: 'Rows' },
  states: {
    reading: 'is being read',
    ready: 'waits for a decision',
    checking: 'is being checked',
    committing: 'is going in',
    committed: 'is in',
    undoing: 'is being undone',
    undone: 'was undone',
    failed: 'could not be read',
    dropped: 'did not arrive whole'
  } as Record<string, string>,
  newTitle: 'Fill from a spreadsheet',
  into: 'Into which list, or the people’s records',
  drop: 'Drop a file here, paste cells, or choose one',
  dropNote: (mb: number) =>
    `.csv, .tsv or .xlsx with a row of headers, at most ${mb} MB. Nothing changes before you have seen what every row would do.`,
  choose: 'Choose a file',
  pasted: 'pasted cells',
  getSheet: 'Get a sheet with the right columns',
  getFilled: 'Get one with what the list holds now',
  getPeople: 'Get everybody’s record as a sheet',
  peopleNote:
    'Change what is to change and bring it back: columns may be moved or left out, rows too. A row with a role template and no employee number opens a hire. Sealed values and files do not go out in sheets.',
  getHires: 'Get an empty sheet for new hires',
  employeeNumber: 'Employee number',
  holdsFrom: 'Holds from',
  corrects: 'Left empty, it corrects what is there.',
  committedPeople: (n: number, c: number) =>
    [
      n === 0 ? '' : n === 1 ? 'One hire was opened.' : `${n} hires were opened.`,
      c === 0 ? '' : c === 1 ? 'One record was changed.' : `${c} records were changed.`
    ].join(' '),
  undoingHires: 'The hires come to nothing again, records are as before. This works as long as nobody has worked on them.',
  undoingPeople: 'Records are as before. This works as long as nobody has changed the same values since.',
  toPeople: 'To the people',
  toArrivals: 'To Arrivals',
  hiresStay: (n: string) => `${n} hires were opened, and somebody may be working on them: each is withdrawn by itself.`,
  uploading: 'The file is on its way.',
  tooLarge: (mb: number) => `The file has more than ${mb} MB. Split it, or take away what is not needed.`,
  progress: (done: number, of: number) => (of > 0 ? `${done} of ${of} rows` : `${done} rows`),
  leaveIt: 'You can leave; it goes on, and is found again under Exchange.',
  outcomes: { new: 'new', changed: 'changed', same: 'as it is', wrong: 'not right', ignored: 'passed over' } as Record<string, string>,
  filter: 'Show',
  all: 'All',
  row: 'Row',
  would: 'Would be',
  matchTo: (header: string) => `What ${header} is`,
  leaveOut: 'leave out',
  by: {
    Header: 'by its header',
    Spelling: 'by a similar header',
    Content: 'by what stands in it',
    Memory: 'as last time',
    Hand: 'as you said',
    Nothing: ''
  } as Record<string, string>,
  dates: 'Dates such as 3/4/2027 are',
  dateOrders: {
    dayMonthYear: 'day, month, year: 3 April',
    monthDayYear: 'month, day, year: March 4',
    yearMonthDay: 'written 2027-04-03'
  } as Record<string, string>,
  askDates: 'The dates here do not say, or contradict each other, whether the day or the month comes first. Say which.',
  decimal: 'Decimals are written',
  comma: 'with a comma: 1,5',
  point: 'with a point: 1.5',
  empty: 'An empty cell',
  emptyKeeps: 'keeps what is there',
  emptyClears: 'empties what is there',
  cell: (header: string, row: number) => `${header}, row ${row}`,
  meant: (what: string) => `Take ${what}`,
  allLike: (what: string) => `for all “${what}”`,
  from: (old: string) => `was ${old || 'empty'}`,
  commitAll: (n: number) => (n === 1 ? 'Put the one row in' : `Put all ${n} rows in`),
  commitGood: (n: number) => (n === 1 ? 'Put only the good row in' : `Put only the ${n} good rows in`),
  rest: 'Get the rest as a sheet',
  dropIt: 'Give up',
  undo: 'Undo the whole import',
  undoing: 'New entries go, changed ones are as before. This works as long as nothing uses them.',
  nothing: 'No row would change anything.',
  summary: (n: number, c: number) => `${n} new, ${c} changed`,
  committed: (n: number, c: number) => `${n} new and ${c} changed entries are in the list.`,
  toList: 'To the list',
  failures: {
    meanwhile: 'Something was changed since these rows were checked. They have been checked again: look once more.',
    fault: 'Something went wrong. Nothing was half done; try again.'
  } as Record<string, string>,
  used: (codes: string) => `This cannot be undone any more: ${codes} is used.`,
  changedSince: (codes: string) => `This cannot be undone any more: ${codes} was changed since.`
};

export type ExchangeWords = typeof en;
