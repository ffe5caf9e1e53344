import type { Api } from '$lib/api/client';
import { describe, expect, test } from 'vitest';
import { givenOf, givenOfSection, idFrom, keyOf, onlyIn, reachOf, toldReach, type Reach, type Role } from './rights';

const role = (rights: Role['rights'], fields: Reach[] = []): Role => ({ id: 'lead', label: {}, fields, rights });

describe('a reach', () => {
  test.each<Reach>(['all', 'tasks', { site: 'skerry' }, { department: 'deck:fore' }, { group: 'crew' }])(
    '%j is chosen by a word of its own',
    (reach) => expect(reachOf(keyOf(reach))).toEqual(reach)
  );
  test('is told with its code or without', () => {
    expect(toldReach({ kind: 'direct', code: null })).toBe('direct');
    expect(toldReach({ kind: 'site', code: 'skerry' })).toEqual({ site: 'skerry' });
  });
});

test('to edit is to see, and everything is each thing', () => {
  const lead = role([
    { do: 'edit', on: 'template', reach: 'all' },
    { do: 'see', on: '*', reach: 'all' },
    { do: 'see', on: 'record', reach: 'direct' }
  ]);
  expect(givenOf(lead, { do: 'see', on: 'template' })).toEqual(['all', 'all']);
  expect(givenOf(lead, { do: 'edit', on: 'template' })).toEqual(['all']);
  expect(givenOf(lead, { do: 'see', on: 'record' })).toEqual(['all', 'direct']);
  expect(givenOf(lead, { do: 'edit', on: 'list' })).toEqual([]);
});

describe('of a section a role gives', () => {
  const section: Api['RoleSection'] = {
    key: 'pay',
    label: { en: 'Pay', de: 'Entgelt' },
    fields: [
      { key: 'rate', label: { en: '', de: '' }, type: 'text' as const, list: null, options: [], access: { lead: 'edit' as const } },
      { key: 'group', label: { en: '', de: '' }, type: 'text' as const, list: null, options: [], access: { lead: 'view' as const } },
      { key: 'iban', label: { en: '', de: '' }, type: 'text' as const, list: null, options: [], access: {} }
    ]
  };
  test.each([
    ['what its fields say, where it reaches anybody', role([], ['all']), { of: 3, seen: 2, edited: 1 }],
    ['nothing, where it reaches nobody', role([]), { of: 3, seen: 0, edited: 0 }],
    ['the whole by a right to it', role([{ do: 'edit', on: 'section:pay', reach: 'all' }]), { of: 3, seen: 3, edited: 3 }],
    ['one field more', role([{ do: 'see', on: 'iban', reach: 'direct' }], ['all']), { of: 3, seen: 3, edited: 1 }],
    ['nothing by a right to another', role([{ do: 'see', on: 'section:work', reach: 'all' }]), { of: 3, seen: 0, edited: 0 }]
  ])('%s', (_, lead, given) => expect(givenOfSection(lead, section)).toEqual(given));
});

test('compared, a role has what the other neither has nor covers', () => {
  const lead = role(
    [
      { do: 'see', on: 'record', reach: 'direct' },
      { do: 'edit', on: 'pay_rate', reach: { site: 'skerry' } },
      { do: 'see', on: 'hire', reach: 'all' }
    ],
    ['direct']
  );
  const other: Role = {
    ...role([
      { do: 'see', on: 'record', reach: 'all' },
      { do: 'ask', on: 'pay_rate', reach: { site: 'skerry' } },
      { do: 'edit', on: 'hire', reach: 'all' }
    ]),
    id: 'other'
  };
  expect(onlyIn(lead, other)).toEqual([
    { do: 'as-set', on: 'lead', reach: 'direct' },
    { do: 'edit', on: 'pay_rate', reach: { site: 'skerry' } }
  ]);
  expect(onlyIn(other, lead)).toEqual([
    { do: 'see', on: 'record', reach: 'all' },
    { do: 'ask', on: 'pay_rate', reach: { site: 'skerry' } },
    { do: 'edit', on: 'hire', reach: 'all' }
  ]);
  expect(onlyIn(lead, lead)).toEqual([]);
});

test.each([
  ['Site lead', [], 'site-lead'],
  ['Führung Süd', [], 'fuhrung-sud'],
  ['Site lead', ['site-lead', 'site-lead-2'], 'site-lead-3'],
  ['3 / 4', [], 'role'],
  ['', ['role'], 'role-2']
])('%j becomes an id', (name, taken, id) => expect(idFrom(name, taken)).toBe(id));
