import type { Words } from './en';

export const de: Words = {
  places: {
    people: 'Wer sich anmeldet',
    roles: 'Rollen und Rechte',
    work: 'Was Fid von selbst tut',
    trail: 'Sicherheit',
    all: 'Teile der Verwaltung'
  },
  accounts: {
    news: (n) => (n === 1 ? 'Eine Person kann sich anmelden.' : `${n} Menschen können sich anmelden.`),
    invited: (n) => (n === 1 ? 'Eine Einladung ist noch offen.' : `${n} Einladungen sind noch offen.`),
    emptyTeams: (teams) => `In ${teams} ist niemand: Was dort liegt, tut keiner.`,
    invite: 'Jemanden einladen',
    find: 'Name oder E-Mail',
    only: {
      awake: 'alle bis auf schlafende',
      '': 'alle',
      active: 'können sich anmelden',
      invited: 'eingeladen',
      asleep: 'schlafend',
      disabled: 'gesperrt'
    },
    asleepNote: 'Konten von Neuen kommen mit ihrer Einstellung und schlafen, bis jemand sie einlädt.',
    columns: ['Name', 'Meldet sich an mit', 'Darf', 'Teams', 'Zuletzt angemeldet', 'Stand'],
    states: { active: 'kann sich anmelden', invited: 'eingeladen', asleep: 'schläft', disabled: 'gesperrt' },
    expired: 'die Einladung ist abgelaufen',
    until: (when) => `eingeladen, bis ${when}`,
    left: 'ausgeschieden',
    never: 'nie',
    none: 'Hier findet sich niemand.',
    more: 'Mehr',
    roles: {
      coordinator: 'Koordination',
      administrator: 'Verwaltung',
      payroll: 'Lohnbüro',
      manager: 'Führung',
      owner: 'Aufgaben',
      newcomer: 'Neue'
    },
    about: {
      coordinator: 'eröffnet Einstellungen, ändert Akten, sieht alle',
      administrator: 'Felder, Listen, Konten, Verbindungen; sieht alle',
      payroll: 'liest jede Akte und die Bezahlung',
      manager: 'sieht die eigenen Leute, erledigt eigene Aufgaben',
      owner: 'erledigt die Aufgaben der eigenen Teams',
      newcomer: 'erledigt die eigenen Aufgaben'
    }
  },
  accountSheet: {
    inviteTitle: 'Jemanden einladen',
    changeTitle: (name) => name,
    name: 'Name',
    email: 'E-Mail zum Anmelden',
    language: 'Sprache',
    languages: { en: 'English', de: 'Deutsch' },
    roles: 'Was sie dürfen',
    teams: 'Teams, deren Aufgaben sie tun',
    person: 'Ihre Akte',
    personNote: 'wo die Firma eine hat',
    noTeam: 'Wer ohne Team Aufgaben erledigt, hat nur die, die ihn beim Namen nennen.',
    invite: 'Einladen',
    save: 'Speichern',
    cancel: 'Abbrechen',
    saved: 'Gespeichert. Es gilt sofort.',
    viewAs: 'Fid so sehen',
    link: 'Neuer Link',
    linkNote: 'für jemanden, der die Einladung oder das Passwort verloren hat',
    disable: 'Sperren',
    enable: 'Freigeben',
    disabled: (name) => `${name} kann sich nicht mehr anmelden.`,
    enabled: (name) => `${name} kann sich wieder anmelden.`,
    endSessions: 'Alle Sitzungen beenden',
    sessionsEnded: 'Alle Sitzungen sind beendet.',
    sessions: (n) =>
      n === 0 ? 'Gerade nirgends angemeldet.' : n === 1 ? 'Gerade an einem Ort angemeldet.' : `Gerade an ${n} Orten angemeldet.`,
    from: (address, when) => `${address}, seit ${when}`
  },
  grants: {
    title: 'Auf Zeit',
    ruled: (role, group) => `${role}, nach Regel: in der Gruppe ${group}`,
    from: 'Von',
    to: 'Bis',
    why: 'Warum',
    role: 'Rolle',
    give: 'Geben',
    end: 'Beenden',
    given: 'Gegeben. Sie gilt an ihren Tagen.',
    ended: 'Beendet. Sie ist sofort weg.',
    days: (from, to) => (from && to ? `${from} bis ${to}` : from ? `ab ${from}` : to ? `bis ${to}` : 'auf Dauer')
  },
  given: {
    title: (name) => `Geben Sie ${name} diesen Link`,
    note: (until) => `Er wird nur dieses eine Mal gezeigt, setzt einmal ein Passwort und gilt bis ${until}.`,
    copy: 'Link kopieren',
    copied: 'Kopiert.',
    another: 'Noch jemanden einladen',
    done: 'Fertig'
  },
  invitation: {
    title: 'Willkommen',
    welcome: (name, firm) => `${name}, Sie sind bei ${firm} zu Fid eingeladen.`,
    again: (name) => `${name}, wähle ein neues Passwort.`,
    signsIn: 'Sie melden sich an mit',
    choose: 'Ihr Passwort',
    onceMore: 'Dasselbe noch einmal',
    act: 'Setzen und anmelden',
    spent: 'Dieser Link öffnet nichts mehr.',
    spentNote: 'Er wurde benutzt, ist abgelaufen, oder es gibt einen neueren. Bitten Sie Ihre Verwaltung um einen neuen Link.',
    toSignIn: 'Zur Anmeldung'
  },
  ofPerson: {
    none: 'Hat kein Konto.',
    invite: 'Einladen',
    states: {
      active: 'Kann sich anmelden',
      invited: 'Ist eingeladen und noch nicht gekommen',
      asleep: 'Hat ein Konto, das schläft',
      disabled: 'Das Konto ist gesperrt'
    },
    look: 'Ansehen'
  },
  colleagues: {
    title: 'Die Leute, mit denen Sie arbeiten',
    note: 'Wer Aufgaben erledigt oder die Bezahlung prüft, muss sich anmelden. Geben Sie allen ihren Link; das geht auch später unter Verwaltung.',
    alone: 'Bisher sind Sie allein.',
    there: (n) => `${n} Menschen können sich anmelden oder sind eingeladen.`
  },
  work: {
    news: (failed) =>
      failed === 0
        ? 'Was Fid von selbst tut, geht gut.'
        : failed === 1
          ? 'Eines konnte nicht getan werden.'
          : `${failed} Dinge konnten nicht getan werden.`,
    intro: 'Was zu tun ist, wartet in einer Reihe. Was misslingt, wird nach immer längeren Pausen wieder versucht.',
    next: 'Was als Nächstes läuft',
    ran: 'Was lief',
    what: 'Was',
    when: 'Wann',
    tried: 'Versucht',
    came: 'Was daraus wurde',
    again: 'Noch einmal',
    now: 'Jetzt',
    asked: 'Es wird getan.',
    running: 'gerade',
    waits: 'wartet auf Sie',
    every: 'immer wieder',
    tries: (n) => (n === 0 ? '' : n === 1 ? 'einmal' : `${n}-mal`),
    handled: (n) => (n === 1 ? 'eines getan' : `${n} getan`),
    nothing: 'Bisher lief nichts.',
    kinds: {
      day: 'Was heute beginnt, gilt',
      leavers: 'Konten Ausgeschiedener werden gesperrt',
      clearing: 'Was niemand mehr braucht, wird weggeräumt',
      rows: 'Nachweise und Ausgegebenes werden in Zeilen übernommen',
      import: 'Eine Tabelle',
      feed: 'Die Bewerberquelle wird abgefragt',
      recruiting: 'Die Bewerberquelle erfährt etwas'
    }
  },
  account: {
    language: 'Sprache der Oberfläche',
    title: 'Ihr Konto',
    sessions: 'Wo Sie angemeldet sind',
    intro: 'Wenn etwas davon nicht Sie sind, beenden Sie alle und ändern Sie Ihr Passwort.',
    here: 'dieser Browser',
    since: (when) => `seit ${when}`,
    until: (when) => `spätestens bis ${when}`,
    end: 'Beenden',
    endAll: 'Alle beenden, auch diese',
    ended: 'Diese Sitzung ist beendet.',
    password: 'Ihr Passwort ändern',
    passwordNote:
      'Mindestens 12 Zeichen. Am besten mehrere Wörter, die nicht zusammengehören; Großbuchstaben, Ziffern und Zeichen braucht es nicht.',
    current: 'Jetziges Passwort',
    next: 'Neues Passwort',
    again: 'Neues Passwort noch einmal',
    differ: 'Die beiden sind nicht gleich.',
    change: 'Ändern',
    changed: 'Ihr Passwort ist geändert. Alle Ihre anderen Sitzungen sind beendet.'
  },
  trail: {
    title: 'Verwaltung',
    news: 'Was die Sicherheit betrifft, das Neueste zuerst.',
    intro: 'Jeder Eintrag ist ein Glied einer Kette: Keiner lässt sich unbemerkt ändern oder herausnehmen. ./fid audit verify beweist es.',
    only: 'Nur',
    all: 'alles',
    when: 'Wann',
    who: 'Wer',
    what: 'Was',
    about: 'Worum',
    from: 'Von wo',
    nobody: 'ein Konto, das es nicht gibt',
    more: 'Frühere',
    empty: 'Von dieser Art ist noch nichts geschehen.',
    actions: {
      'account.refused': 'versuchte ein gesperrtes Konto',
      'account.invited': 'wurde eingeladen',
      'account.accepted': 'setzte das erste Passwort',
      'account.changed': 'Konto wurde geändert',
      'account.linkMade': 'bekam einen neuen Link',
      'account.passwordSet': 'setzte über einen Link ein neues Passwort',
      'account.disabled': 'Konto wurde gesperrt',
      'account.enabled': 'Konto wurde freigegeben',
      'account.sessionsEnded': 'Sitzungen wurden beendet',
      'session.begun': 'hat sich angemeldet',
      'session.ended': 'hat sich abgemeldet',
      'session.refused': 'falsches Passwort',
      'session.slowed': 'falsches Passwort, verlangsamt',
      'session.allEnded': 'hat alle Sitzungen beendet',
      'password.changed': 'hat das Passwort geändert',
      'session.viewedAs': 'hat Fid wie jemand anderes gesehen',
      'access.refused': 'wurde abgewiesen',
      'data.exported': 'hat Daten herausgeholt',
      'field.revealed': 'hat einen versiegelten Wert angesehen',
      'fields.published': 'hat Felder veröffentlicht',
      'fields.widenAsked': 'bat darum, geschützte Felder zu öffnen',
      'feed.address': 'hat die Bewerberquelle geändert',
      'role.granted': 'hat eine Rolle bekommen',
      'role.taken': 'hat eine Rolle verloren',
      'rights.published': 'hat Rollen gelten lassen',
      'rights.widenAsked': 'bat darum, einer Rolle mehr zu geben',
      'firm.created': 'hat die Firma eingerichtet'
    }
  }
};
