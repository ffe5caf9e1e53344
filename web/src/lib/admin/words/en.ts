export const en = {
  account: {
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
      'session.begun': 'signed in',
      'session.ended': 'signed out',
      'session.refused': 'wrong password',
      'session.slowed': 'wrong password, slowed down',
      'session.allEnded': 'ended all sessions',
      'password.changed': 'changed the password',
      'access.refused': 'was refused',
      'data.exported': 'took data out',
      'field.revealed': 'looked at a sealed value',
      'fields.published': 'published fields',
      'fields.widenAsked': 'asked to open guarded fields',
      'feed.address': 'changed the recruiting feed',
      'firm.created': 'set the firm up'
    } as Record<string, string>
  }
};

export type Words = typeof en;
