import { describe, expect, it } from 'vitest';
import { accessTo, copies, keyFrom, renamed, sectionMoved, type Configuration, type Field } from './configuration';

const text = (key: string, more: Partial<Field> = {}): Field => ({ key, type: 'text', section: 'work', label: { en: key }, ...more });
const configuration = (...fields: Field[]): Configuration => ({
  sections: [
    { key: 'person', label: { en: 'Person' } },
    { key: 'work', label: { en: 'Work' } },
    { key: 'pay', label: { en: 'Pay' } }
  ],
  fields
});

it.each([
  ['text', 'edit', 'edit'],
  ['text', 'ask', 'ask'],
  ['text', 'view', 'view'],
  ['computed', 'edit', 'view'],
  ['computed', 'ask', 'view'],
  ['computed', 'none', 'none']
] as const)('of a field of type %s a role with %s has %s', (type, given, has) => {
  expect(accessTo(text('room', { type, access: { manager: given } }), 'manager')).toBe(has);
  expect(accessTo(text('room', { type }), 'manager')).toBe('none');
});

describe('a key made of a label', () => {
  it.each([
    ['Locker number', 'locker_number'],
    ['Größe (cm)', 'gro_e_cm'],
    ['2nd locker', 'n2nd_locker'],
    ['Room', 'room_2'],
    ['！', 'field']
  ])('%s becomes %s', (label, key) => expect(keyFrom(label, [{ key: 'room' }])).toBe(key));
});

describe('a new field that goes by another key', () => {
  it('is followed by whatever of the draft names it, and by no text or other name', () => {
    const before = configuration(
      text('lock', { showWhen: "lock == 'lock' and locker != null" }),
      text('locker', {
        parent: 'lock',
        requiredWhen: "lock != null and room == 'it\\'s lock'",
        onChange: [{ set: 'lock', formula: 'lock' }]
      }),
      text('sum', { type: 'computed', default: { formula: 'lock + lock_2' } })
    );
    const after = renamed(before, 'lock', 'cabinet');
    expect(after.fields).toEqual([
      text('lock', { key: 'cabinet', showWhen: "cabinet == 'lock' and locker != null" }),
      text('locker', {
        parent: 'cabinet',
        requiredWhen: "cabinet != null and room == 'it\\'s lock'",
        onChange: [{ set: 'cabinet', formula: 'cabinet' }]
      }),
      text('sum', { type: 'computed', default: { formula: 'cabinet + lock_2' } })
    ]);
  });
});

describe('copies', () => {
  const fields = [text('room'), text('room_2'), text('desk')];
  const copied = (label: string) => `${label}, copy`;

  it('have keys of their own, and say that they are copies', () => {
    expect(copies([fields[0]!], fields, undefined, copied)).toEqual([text('room_3', { label: { en: 'room, copy' } })]);
  });

  it('of a whole section keep their labels, and are told apart from each other', () => {
    const made = copies([text('room'), text('room')], fields, 'pay', copied);
    expect(made.map((f) => [f.key, f.section, f.label?.en])).toEqual([
      ['room_3', 'pay', 'room'],
      ['room_4', 'pay', 'room']
    ]);
  });
});

describe('sections', () => {
  const keys = (c: Configuration) => c.sections.map((s) => s.key);
  it.each([
    ['work', -1, ['work', 'person', 'pay']],
    ['work', 1, ['person', 'pay', 'work']],
    ['pay', 1, ['person', 'work', 'pay']],
    ['person', -1, ['person', 'work', 'pay']],
    ['nothing', 1, ['person', 'work', 'pay']]
  ])('%s by %i', (key, by, order) => expect(keys(sectionMoved(configuration(), key, by))).toEqual(order));
});
