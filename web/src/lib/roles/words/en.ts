export const en = {
  news: (own: number) =>
    own === 0
      ? 'Seven roles ship with Fid.'
      : own === 1
        ? 'Seven roles ship with Fid, and one is your own.'
        : `Seven roles ship with Fid, and ${own} are your own.`,
  intro: 'Rights only ever add up: nobody has what no role gives. The roles that ship stay as they are; make your own beside them.',
  add: 'Add a role',
  addGroup: 'Add a group',
  newRole: 'New role',
  newGroup: 'New group',
  explain: 'Who may…?',
  export: 'Export',
  import: 'Import',
  versions: 'Versions',
  sheet: 'What each role gives',
  right: 'Right',
  ofPeople: 'With people',
  ofFirm: 'With the firm’s things',
  ofFields: 'With fields',
  fieldsNote: 'What a field gives to a role stands with the field itself, and counts for those whom the role reaches.',
  holders: (n: number) => (n === 0 ? 'held by nobody' : n === 1 ? 'held by one' : `held by ${n}`),
  ships: 'ships with Fid',
  reaches: {
    all: 'everybody',
    self: 'oneself',
    direct: 'who reports to them',
    reports: 'all below them',
    tasks: 'for whom they have a task',
    site: (name: string) => `site ${name}`,
    department: (name: string) => `department ${name} and below`,
    group: (name: string) => `group ${name}`
  },
  yes: 'yes',
  no: 'no',
  section: (given: { of: number; seen: number; edited: number }) =>
    given.seen === 0
      ? ''
      : given.edited === given.of
        ? 'edits all'
        : given.seen === given.of && given.edited === 0
          ? 'sees all'
          : given.edited === 0
            ? `sees ${given.seen} of ${given.of}`
            : `sees ${given.seen}, edits ${given.edited} of ${given.of}`,
  compare: {
    title: 'Compare with',
    only: (role: string) => `Only ${role}`,
    nothing: 'Nothing that the other does not give.'
  },
  role: {
    secondFactor: 'Its holders prove by a second factor who they are',
    name: 'Name',
    nameDe: 'Name in German',
    key: 'Known to fields and files as',
    fields: 'What fields give to it counts for',
    fieldsNone: 'nobody',
    addReach: 'Add whom it counts for',
    rights: 'It may',
    addRight: 'Add a right',
    none: 'Nothing so far. Add what it may.',
    of: 'of',
    remove: 'Take away',
    removeRole: 'Take the role away',
    like: 'Make one like it',
    likeName: (name: string) => `${name}, ours`,
    readOnly: 'This role ships with Fid and stays as it is. Make one like it, and change that.',
    close: 'Close',
    see: (what: string) => `See ${what}`,
    ask: (what: string) => `Ask for ${what} to be changed`,
    edit: (what: string) => `Edit ${what}`,
    sectionOf: (name: string) => `the section ${name}`,
    everything: 'See everything there is'
  },
  group: {
    title: 'Groups of people',
    none: 'No group so far. A group is made by what records say, such as a job or a site; rights reach it, and roles are given to it by rule.',
    people: (n: number) => (n === 1 ? 'one person' : `${n} people`),
    when: 'Who is in it',
    everybody: 'nobody, until it is said',
    roles: 'Whoever is in it has',
    noRoles: 'no role by rule',
    remove: 'Take the group away',
    rule: (roles: string) => `has ${roles} by rule`
  },
  draft: {
    notLive: 'Nothing of this is live yet.',
    by: (name: string) => `Saved by ${name}.`,
    saving: 'Saving…',
    saved: 'Saved.',
    wrong: 'Something in it would not work:',
    review: 'What it gives and takes',
    discard: 'Throw away',
    discardSure: 'Throw the draft of roles away?',
    other: (name: string) => `${name} saved the draft meanwhile.`,
    theirs: 'Take theirs',
    ours: 'Keep mine'
  },
  review: {
    proved: (role: string) => `${role}: asked for a second factor from then on`,
    noLongerProved: (role: string) => `${role}: no longer asked for a second factor`,
    title: 'What it gives and takes',
    nothing: 'Nothing is different from what is live.',
    roles: 'By role',
    people: 'By person',
    nobody: 'Nobody has other rights by it.',
    groups: 'By group',
    isNew: 'new, held by nobody yet',
    isGone: 'taken away from all who hold it',
    gains: 'gains',
    loses: 'loses',
    asSet: (role: string) => `what fields give to ${role}`,
    counts: (before: number, after: number) => `${before} people now, ${after} then`,
    coming: (names: string) => `in: ${names}`,
    going: (names: string) => `out: ${names}`,
    widens: 'Somebody may get more by this. A second person has to agree.',
    waits: 'You asked for it. It waits for somebody else to agree.',
    asksYou: (name: string) => `${name} asks you to agree.`,
    own: 'You would get more by this yourself, so somebody who does not has to agree.',
    why: 'Why',
    act: 'Make it live',
    ask: 'Ask for it',
    agree: 'Agree, and make it live',
    cancel: 'Cancel',
    done: (version: number) => `Version ${version} is live.`,
    asked: 'Asked. Somebody else has to agree.'
  },
  explained: {
    title: 'Who may, and why',
    what: 'What',
    person: 'With whom',
    anybody: 'anybody',
    nobody: 'Nobody who can sign in may.',
    may: (n: number) => (n === 1 ? 'One person may.' : `${n} people may.`),
    because: (role: string, reach: string) => `as ${role}: ${reach}`,
    byRule: (group: string | null) => (group === null ? 'by rule, works here' : `by rule, in the group ${group}`)
  },
  version: (n: number, by: string, when: string) => `Version ${n}, by ${by}, ${when}`,
  askedBy: (name: string) => `asked for by ${name}`,
  noVersions: 'Nothing was made live so far.',
  takeVersion: 'Take as draft'
};

export type RoleWords = typeof en;
