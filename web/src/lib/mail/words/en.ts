import { word } from '$lib/text/counted/en';

/** What Mail says in English. */
export const en = {
  title: 'Mail',
  link: 'Mail',
  people: (n: number, day: string) =>
    n === 0
      ? `Nobody is written to on ${day}.`
      : n === 1
        ? `One person is written to on ${day}.`
        : `${word(n)} people are written to on ${day}.`,
  at: (time: string) => `from ${time} on`,
  day: 'On',
  noServer: 'No mail server is set, so nothing goes out. Whoever runs this server sets Fid:Mail:Server.',
  paused: 'Reminders are paused for the whole firm: nothing goes out.',
  kinds: { escalation: 'late for long', overdue: 'late', due: 'due', before: 'due soon', opened: 'new: its stage has opened' },
  days: (n: number) =>
    n === 0
      ? 'due that day'
      : n < 0
        ? n === -1
          ? 'due the next working day'
          : `due in ${-n} working days`
        : n === 1
          ? 'one working day late'
          : `${n} working days late`,
  for: (hire: string) => `for ${hire}`,
  of: (owner: string) => `${owner}’s`,
  waiting: 'Does not go out',
  why: {
    'rest-day': 'rests on that day; it goes out on the next one worked',
    'no-manager': 'has no manager who can sign in; only they are reminded'
  } as Record<string, string>,
  unowned: (n: number) => (n === 1 ? 'One task has nobody who could be reminded' : `${word(n)} tasks have nobody who could be reminded`),
  unownedWhy: 'Their owners cannot sign in, or a team has no members.',
  settings: 'When Fid reminds',
  before: 'Working days before it is due',
  beforeNote: 'such as 5, 1',
  onDue: 'On the day it is due',
  every: 'Then every … working days',
  most: 'At most so often',
  escalateAfter: 'Tell the manager after',
  escalateNote: 'working days; empty for never',
  time: 'From',
  pause: 'Pause all reminders',
  save: 'Save',
  saved: 'It is saved.',
  sent: 'What went out',
  none: 'Nothing has gone out yet.',
  columns: ['When', 'To', 'Subject', 'State'],
  states: { sent: 'taken by the mail server', waits: 'waits', refused: 'came back' },
  tried: (why: string) => `it is tried again: ${why}`,
  back: {
    news: (n: number) => (n === 1 ? 'One message came back. Whoever it was for knows nothing of it.' : `${word(n)} messages came back.`),
    again: 'Send to the address of now',
    aside: 'Lay aside',
    account: 'Correct the address',
    sent: 'It goes out once more.',
    laid: 'It is laid aside.'
  },
  texts: {
    news: (own: number) =>
      own === 0 ? 'Fid writes in the words it ships with.' : own === 1 ? 'One text is your own.' : `${word(own)} texts are your own.`,
    kind: 'Message',
    language: 'in',
    languages: { en: 'English', de: 'German' } as Record<string, string>,
    text: 'Text of the message',
    subject: 'Subject',
    plain: 'Plain text',
    html: 'HTML',
    fields: 'Put in …',
    save: 'Save',
    saved: 'It is saved. The next message goes out like this.',
    shipped: 'Back to the text that ships',
    asShipped: 'As it ships.',
    unsaved: 'Not saved yet.',
    own: (by: string, day: string) => `Your own, by ${by} on ${day}.`,
    looks: 'How it looks',
    hire: 'In the case of',
    shownAs: 'Shown as',
    missing: (names: string) => `It names what is not there: ${names}.`
  }
};
