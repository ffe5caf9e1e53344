export const en = {
  places: {
    people: 'People who sign in',
    roles: 'Roles and rights',
    work: 'What Fid does by itself',
    trail: 'Security',
    all: 'Parts of Admin'
  },
  accounts: {
    news: (n: number) => (n === 1 ? 'One person can sign in.' : `${n} people can sign in.`),
    invited: (n: number) => (n === 1 ? 'One was invited and has not come yet.' : `${n} were invited and have not come yet.`),
    emptyTeams: (teams: string) => `Nobody is in ${teams}: what they own nobody does.`,
    invite: 'Invite somebody',
    find: 'Name or e-mail',
    only: {
      awake: 'all but those asleep',
      '': 'all',
      active: 'can sign in',
      invited: 'invited',
      asleep: 'asleep',
      disabled: 'disabled'
    } as Record<string, string>,
    asleepNote: 'Accounts of newcomers come with their hires, and sleep until somebody invites them.',
    columns: ['Name', 'Signs in with', 'May', 'Teams', 'Last signed in', 'State'],
    states: { active: 'can sign in', invited: 'invited', asleep: 'asleep', disabled: 'disabled' } as Record<string, string>,
    expired: 'the invitation has run out',
    until: (when: string) => `invited, until ${when}`,
    left: 'has left',
    never: 'never',
    none: 'Nobody is found here.',
    more: 'More',
    roles: {
      coordinator: 'Coordinator',
      administrator: 'Administrator',
      payroll: 'Payroll clerk',
      manager: 'Manager',
      owner: 'Task owner',
      newcomer: 'Newcomer'
    } as Record<string, string>,
    about: {
      coordinator: 'opens hires, changes records, sees everybody',
      administrator: 'fields, lists, accounts, connections; sees everybody',
      payroll: 'reads every record, and pay',
      manager: 'sees their own people, does own tasks',
      owner: 'does the tasks of their teams',
      newcomer: 'does their own tasks'
    } as Record<string, string>
  },
  accountSheet: {
    inviteTitle: 'Invite somebody',
    changeTitle: (name: string) => name,
    name: 'Name',
    email: 'E-mail, to sign in with',
    language: 'Language',
    languages: { en: 'English', de: 'Deutsch' } as Record<string, string>,
    roles: 'What they may',
    teams: 'Teams whose tasks they do',
    person: 'Their record',
    personNote: 'where the firm has one of them',
    noTeam: 'A task owner without a team has only the tasks that name them.',
    invite: 'Invite',
    save: 'Save',
    cancel: 'Cancel',
    saved: 'Saved. It holds at once.',
    viewAs: 'See Fid as they do',
    link: 'New link',
    linkNote: 'for somebody who lost the invitation or the password',
    disable: 'Disable',
    enable: 'Enable',
    disabled: (name: string) => `${name} cannot sign in any more.`,
    enabled: (name: string) => `${name} can sign in again.`,
    endSessions: 'End all sessions',
    sessionsEnded: 'All their sessions have ended.',
    sessions: (n: number) =>
      n === 0 ? 'Not signed in anywhere now.' : n === 1 ? 'Signed in at one place now.' : `Signed in at ${n} places now.`,
    from: (address: string, when: string) => `${address}, since ${when}`
  },
  grants: {
    title: 'For a time',
    ruled: (role: string, group: string) => `${role}, by rule: in the group ${group}`,
    from: 'From',
    to: 'Until',
    why: 'Why',
    role: 'Role',
    give: 'Give it',
    end: 'End',
    given: 'Given. It counts on its days.',
    ended: 'Ended. It is gone at once.',
    days: (from: string | undefined, to: string | undefined) =>
      from && to ? `${from} to ${to}` : from ? `from ${from}` : to ? `until ${to}` : 'for good'
  },
  given: {
    title: (name: string) => `Give ${name} this link`,
    note: (until: string) => `It is shown this once, sets a password once, and is good until ${until}.`,
    copy: 'Copy the link',
    copied: 'Copied.',
    another: 'Invite another',
    done: 'Done'
  },
  invitation: {
    title: 'Welcome',
    welcome: (name: string, firm: string) => `${name}, you are invited to Fid at ${firm}.`,
    again: (name: string) => `${name}, choose a new password.`,
    signsIn: 'You sign in with',
    choose: 'Your password',
    onceMore: 'The same once more',
    act: 'Set it and sign in',
    spent: 'This link opens nothing any more.',
    spentNote: 'It was used, has run out, or there is a newer one. Ask your administrator for a new link.',
    toSignIn: 'To sign in'
  },
  ofPerson: {
    none: 'Has no account.',
    invite: 'Invite',
    states: {
      active: 'Can sign in',
      invited: 'Was invited and has not come yet',
      asleep: 'Has an account that sleeps',
      disabled: 'Their account is disabled'
    } as Record<string, string>,
    look: 'Look at it'
  },
  colleagues: {
    title: 'The people you work with',
    note: 'Whoever does tasks or checks pay needs to sign in. Give each their link; it can be done later under Admin.',
    alone: 'So far you are the only one.',
    there: (n: number) => `${n} people can sign in or are invited.`
  },
  work: {
    news: (failed: number) =>
      failed === 0
        ? 'All that Fid does by itself goes well.'
        : failed === 1
          ? 'One thing could not be done.'
          : `${failed} things could not be done.`,
    intro: 'What is to be done waits in one queue. What goes wrong is tried again, after longer and longer pauses.',
    next: 'What runs next',
    ran: 'What ran',
    what: 'What',
    when: 'When',
    tried: 'Tried',
    came: 'What came of it',
    again: 'Run it again',
    now: 'Run it now',
    asked: 'It is being done.',
    running: 'now',
    waits: 'waits for you',
    every: 'again and again',
    tries: (n: number) => (n === 0 ? '' : n === 1 ? 'once' : `${n} times`),
    handled: (n: number) => (n === 1 ? 'one done' : `${n} done`),
    nothing: 'Nothing ran so far.',
    kinds: {
      day: 'Values that begin today take effect',
      leavers: 'Accounts of leavers are disabled',
      clearing: 'What nobody needs any more is cleared away',
      rows: 'Certificates and items are taken over into rows',
      import: 'A sheet',
      feed: 'The recruiting feed is pulled',
      recruiting: 'Recruiting is told'
    } as Record<string, string>
  },
  account: {
    language: 'Language of the interface',
    title: 'Your account',
    sessions: 'Where you are signed in',
    intro: 'If one of these is not you, end them all and change your password.',
    here: 'this browser',
    since: (when: string) => `since ${when}`,
    until: (when: string) => `until ${when} at the latest`,
    end: 'End',
    endAll: 'End all, this one too',
    ended: 'That session has ended.',
    password: 'Change your password',
    passwordNote: 'At least 12 characters. Several words that do not belong together are best; capitals, digits and signs are not needed.',
    current: 'Current password',
    next: 'New password',
    again: 'New password once more',
    differ: 'The two are not the same.',
    change: 'Change it',
    changed: 'Your password has changed. All your other sessions have ended.'
  },
  trail: {
    title: 'Admin',
    news: 'What concerns security, the latest first.',
    intro: 'Every entry is a link of a chain: none can be altered or taken out unnoticed. ./fid audit verify proves it.',
    only: 'Only',
    all: 'everything',
    when: 'When',
    who: 'Who',
    what: 'What',
    about: 'About',
    from: 'From',
    nobody: 'an account there is none of',
    more: 'Earlier ones',
    empty: 'Nothing of this kind has happened yet.',
    actions: {
      'account.refused': 'tried a disabled account',
      'account.invited': 'was invited',
      'account.accepted': 'set a first password',
      'account.changed': 'account was changed',
      'account.linkMade': 'was given a new link',
      'account.passwordSet': 'set a new password by a link',
      'account.disabled': 'account was disabled',
      'account.enabled': 'account was enabled',
      'account.sessionsEnded': 'sessions were ended',
      'session.begun': 'signed in',
      'session.ended': 'signed out',
      'session.refused': 'wrong password',
      'session.slowed': 'wrong password, slowed down',
      'session.allEnded': 'ended all sessions',
      'password.changed': 'changed the password',
      'session.viewedAs': 'looked at Fid as somebody else',
      'access.refused': 'was refused',
      'data.exported': 'took data out',
      'field.revealed': 'looked at a sealed value',
      'fields.published': 'published fields',
      'fields.widenAsked': 'asked to open guarded fields',
      'feed.address': 'changed the recruiting feed',
      'role.granted': 'was given a role',
      'role.taken': 'had a role taken away',
      'rights.published': 'made roles live',
      'rights.widenAsked': 'asked to give a role more',
      'firm.created': 'set the firm up'
    } as Record<string, string>
  }
};

export type Words = typeof en;
