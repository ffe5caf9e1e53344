import type { Api } from '$lib/api/client';
import { beforeEach, describe, expect, it } from 'vitest';
import type { Configuration, Field } from './configuration';
import { Drafting } from './drafting.svelte';
import { FieldEditing } from './fieldEditing.svelte';

const fields: Field[] = [
  { key: 'shirt_size', label: { en: 'Shirt size' }, type: 'choice', options: [{ value: 's' }], parent: 'fit' },
  {
    key: 'fit',
    type: 'choice',
    options: [
      { value: 'slim', label: { en: 'Slim', de: 'Schmal' } },
      { value: 'wide' },
      { value: 'old', label: { en: 'Old' }, retired: true }
    ]
  },
  { key: 'room', type: 'text', parent: 'site' },
  { key: 'site', type: 'choice', list: 'sites' }
];
const entries = [
  { list: 'sites', code: 'pier', name: 'Skerry Pier', nameDe: null, retired: false },
  { list: 'sites', code: 'gone', name: 'Old Quay', nameDe: null, retired: true },
  { list: 'jobs', code: 'cook', name: 'Cook', nameDe: null, retired: false }
];

/** A draft that is kept here alone. */
class LocalDrafting extends Drafting {
  override put(configuration: Configuration) {
    this.content = configuration;
    return Promise.resolve();
  }
}

describe('a field being edited', () => {
  let drafting: LocalDrafting;
  let renamedTo: string[];
  beforeEach(() => {
    drafting = new LocalDrafting();
    drafting.content = { sections: [], fields };
    renamedTo = [];
  });
  const editing = (key: string, more: { live?: boolean; shipped?: string[] } = {}) =>
    new FieldEditing(() => ({
      field: drafting.find(renamedTo.at(-1) ?? key)!,
      live: more.live ?? false,
      drafting,
      shipped: more.shipped ?? [],
      entries,
      onrename: (to) => renamedTo.push(to)
    }));

  it('offers what its parent can hold: options or entries of its list, not those retired', () => {
    expect(editing('shirt_size').parents).toEqual([
      { value: 'slim', label: 'Slim' },
      { value: 'wide', label: 'wide' }
    ]);
    expect(editing('room').parents).toEqual([{ value: 'pier', label: 'Skerry Pier' }]);
    expect([editing('shirt_size').hasOptions, editing('site').hasOptions, editing('room').hasOptions]).toEqual([true, false, false]);
  });

  it('lets its key follow its English label until it is published', () => {
    const edited = editing('shirt_size');
    edited.relabel('de', 'Hemdgröße');
    expect([drafting.content.fields[0]!.key, drafting.content.fields[0]!.label]).toEqual([
      'shirt_size',
      { en: 'Shirt size', de: 'Hemdgröße' }
    ]);
    edited.relabel('en', 'Collar size');
    expect([renamedTo, drafting.content.fields[0]!.key, drafting.content.fields[0]!.label?.en]).toEqual([
      ['collar_size'],
      'collar_size',
      'Collar size'
    ]);
  });

  it.each([
    ['that is live', { live: true }],
    ['that ships', { shipped: ['shirt_size'] }]
  ])('keeps the key of one %s', (_, more) => {
    const edited = editing('shirt_size', more);
    edited.relabel('en', 'Collar size');
    edited.rename('collar');
    expect([renamedTo, drafting.content.fields[0]!.key, drafting.content.fields[0]!.label?.en]).toEqual([[], 'shirt_size', 'Collar size']);
  });

  it('does not follow the label once somebody chose another key, and takes no key of another field', () => {
    const edited = editing('shirt_size');
    edited.rename('Fit');
    expect(renamedTo).toEqual(['fit_2']);
    edited.relabel('en', 'Cut');
    expect(renamedTo).toEqual(['fit_2']);
    edited.rename('');
    edited.rename('fit_2');
    expect(renamedTo).toEqual(['fit_2']);
  });

  it('says what is wrong at its part, and at which character', () => {
    drafting.review = {
      findings: [
        { fields: ['shirt_size'], part: 'showWhen', code: 'odd', message: 'Odd.', character: 4 },
        { fields: ['room'], part: 'key', code: 'odd', message: 'Other.', character: null }
      ]
    } as unknown as Api['ReviewResponse'];
    const edited = editing('shirt_size');
    expect([edited.errorOf('showWhen'), edited.characterOf('showWhen')]).toEqual(['Odd.', 4]);
    expect([edited.errorOf('key'), edited.characterOf('key')]).toEqual([undefined, undefined]);
  });
});
