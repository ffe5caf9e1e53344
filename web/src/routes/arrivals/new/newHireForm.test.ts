import type { Api, ProblemEntry } from '$lib/api/client';
import { beforeEach, describe, expect, it } from 'vitest';
import { Draft } from './draft.svelte';
import { NewHireForm } from './newHireForm.svelte';

const problem = (pointer: string, detail: string): ProblemEntry => ({ pointer, code: 'odd', detail, follows: null });
const preview = {
  values: [
    { field: 'job', value: 'cook', display: 'Cook', source: { kind: 'typed' } },
    { field: 'pay_rate', value: '17.4', display: null, source: { kind: 'typed' } },
    { field: 'weekly_hours', value: 38, display: null, source: { kind: 'typed' } }
  ],
  problems: [problem('/typed/email', 'of the preview'), problem('/start', 'of the preview')]
} as unknown as Api['HirePreview'];

describe('the form of a new hire', () => {
  let draft: Draft;
  let form: NewHireForm;
  beforeEach(() => {
    draft = new Draft();
    form = new NewHireForm(draft, () => preview);
  });

  it('shows what the template gives as if it were typed, and what is typed over it', () => {
    expect([form.held('job'), form.shown('job'), form.held('weekly_hours'), form.shown('weekly_hours')]).toEqual([
      'cook',
      'Cook',
      '',
      '38'
    ]);
    draft.set('job', 'mate');
    expect([form.held('job'), form.shown('job')]).toEqual(['mate', 'Cook']);
    draft.set('job', '');
    expect(form.held('job')).toBe('cook');
  });

  it('writes numbers as the reader does, and leaves those typed as they are', () => {
    expect([form.heldNumber('pay_rate'), form.heldNumber('allowance')]).toEqual(['17.40', '']);
    draft.set('pay_rate', '18');
    expect(form.heldNumber('pay_rate')).toBe('18');
  });

  it('tells of a field that nothing is given to that nothing is', () => {
    expect([form.held('site'), form.shown('site'), form.note('site')]).toEqual(['', '', undefined]);
  });

  it('says what was refused before what the preview says', () => {
    expect([form.error('/typed/email'), form.error('/typed/site')]).toEqual(['of the preview', undefined]);
    form.refused = [problem('/typed/email', 'refused'), problem('/typed/site', 'refused')];
    expect([form.error('/typed/email'), form.error('/typed/site'), form.error('/start')]).toEqual(['refused', 'refused', 'of the preview']);
  });

  it('counts what is filled in beside what is typed, and never less than nothing', () => {
    expect(form.filledIn).toBe(3);
    draft.set('given_name', 'Ines');
    expect(form.filledIn).toBe(2);
    for (const field of ['family_name', 'email', 'phone']) draft.set(field, 'x');
    expect(form.filledIn).toBe(0);
    expect(new NewHireForm(draft, () => undefined).filledIn).toBe(0);
  });

  it('a first day in the past is meant anew each time it changes', () => {
    draft.start = '2027-02-01';
    draft.backDated = true;
    draft.start = '2027-02-01';
    expect(draft.backDated).toBe(true);
    draft.start = '2027-02-02';
    expect(draft.backDated).toBe(false);
  });

  it('is like a colleague only as long as that is the way', () => {
    draft.like = { id: 'e', name: 'Piet', parts: ['pay'] };
    expect([draft.colleague, draft.canBeWorkedOut]).toEqual([null, false]);
    draft.way = 'like';
    expect([draft.colleague, draft.canBeWorkedOut, draft.request.like]).toEqual([
      { employment: 'e', parts: ['pay'] },
      true,
      { employment: 'e', parts: ['pay'] }
    ]);
  });
});
