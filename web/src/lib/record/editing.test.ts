import type { Api } from '$lib/api/client';
import { describe, expect, it } from 'vitest';
import { Editing } from './editing.svelte';

type Field = Api['FieldResponse'];

const field = (key: string, value: unknown, changesOverTime = false) =>
  ({ key, type: 'text', value, changesOverTime, sensitive: false }) as unknown as Field;
const rate = field('pay_rate', '17.40', true);
const name = field('family_name', 'Marsh');
const room = field('room', null, true);
const record = (asOf = '2027-03-01') =>
  ({ asOf, today: '2027-03-01', version: '1', sections: [{ fields: [rate, name, room] }] }) as unknown as Api['RecordResponse'];

/** What somebody is editing, having typed into some fields. */
function typed(into: Field[], asOf?: string): Editing {
  const editing = new Editing();
  for (const f of into) editing.set(record(asOf), f, 'other');
  return editing;
}

describe('a fix or a change from a date', () => {
  it('is asked for no longer once it is said', () => {
    const editing = typed([rate]);
    editing.asking = true;
    editing.say(null);
    expect([editing.asking, editing.said, editing.from]).toEqual([false, true, null]);
  });

  it.each([
    { into: [rate], overwrites: true, likelyFrom: true, because: 'a raise is a change' },
    { into: [name], overwrites: true, likelyFrom: false, because: 'a name is a slip put right' },
    { into: [name, rate], overwrites: true, likelyFrom: true, because: 'one of them changes over time' },
    { into: [room], overwrites: false, likelyFrom: false, because: 'nothing was there before' },
    { into: [], overwrites: false, likelyFrom: false, because: 'nothing is changed' }
  ])('$because', ({ into, overwrites, likelyFrom }) => {
    const editing = typed(into);
    expect([editing.overwrites, editing.likelyFrom]).toEqual([overwrites, likelyFrom]);
  });

  it('of somebody who has not started it is a fix', () => {
    expect(typed([rate], '2027-04-05').likelyFrom).toBe(false);
  });

  it('is asked anew once what was typed is discarded', () => {
    const editing = typed([rate]);
    editing.say('2027-03-08');
    expect([editing.said, editing.from]).toEqual([true, '2027-03-08']);
    editing.discard();
    expect([editing.said, editing.from, editing.overwrites]).toEqual([false, null, false]);
  });

  it('is kept with what was typed', () => {
    const editing = typed([rate]);
    editing.say('2027-03-08');
    const again = new Editing();
    again.resume(editing.typed!);
    expect([again.said, again.from, again.likelyFrom]).toEqual([true, '2027-03-08', true]);
  });
});
