/** What People says in English. */
export const en = {
  standing: 'Today',
  all: 'also who was here',
  standings: {
    coming: () => 'coming',
    here: () => 'here',
    leaving: (day: string) => (day ? `leaving on ${day}` : 'here'),
    left: (day: string) => (day ? `left on ${day}` : 'left'),
    neverCame: () => 'came to nothing'
  } as Record<string, (day: string) => string>,
  find: 'Find by name, number, badge, job or site',
  on: 'As of',
  asOf: 'Who worked here then, and as what',
  payCheck: 'Pay check',
  payRevision: 'Pay revision',
  sheet: 'Get as a sheet',
  title: (n: string) => `People${n}`,
  number: 'Number',
  name: 'Name',
  job: 'Job',
  department: 'Department',
  site: 'Site',
  since: 'Since',
  more: 'Show more',
  none: 'Nobody is called that.'
};
