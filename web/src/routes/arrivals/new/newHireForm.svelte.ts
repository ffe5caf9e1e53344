import type { Api, ProblemEntry } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { sourceText } from '$lib/text/source';
import type { Draft } from './draft.svelte';

/** The fields that a hire most often differs in from its template, each as it is typed. */
export const usual: ({ field: string } & ({ as: 'list'; list: string } | { as: 'person' | 'decimal' | 'digits' }))[] = [
  { field: 'kind', as: 'list', list: 'employmentKinds' },
  { field: 'job', as: 'list', list: 'jobs' },
  { field: 'department', as: 'list', list: 'departments' },
  { field: 'manager', as: 'person' },
  { field: 'pay_rate', as: 'decimal' },
  { field: 'shift_pattern', as: 'list', list: 'shiftPatterns' },
  { field: 'badge', as: 'digits' },
  { field: 'holiday_calendar', as: 'list', list: 'calendars' },
  { field: 'cost_centre', as: 'list', list: 'costCentres' }
];

/** What the form of a new hire shows: what is typed, what the template gives where nothing is, and what is wrong with either. */
export class NewHireForm {
  /** What the server refused when it was to be opened. */
  refused = $state.raw<ProblemEntry[]>([]);
  #preview: () => Api['HirePreview'] | undefined;

  constructor(
    readonly draft: Draft,
    preview: () => Api['HirePreview'] | undefined
  ) {
    this.#preview = preview;
  }

  #given = (field: string) => this.#preview()?.values.find((v) => v.field === field);

  /** What the template gives a field, as it is read. */
  shown(field: string): string {
    const given = this.#given(field);
    return given ? (given.display ?? String(given.value ?? '')) : '';
  }

  /** Where what is given to a field comes from. */
  note(field: string): string | undefined {
    const given = this.#given(field);
    return given ? sourceText(given.source) : undefined;
  }

  /** What stands in a field: given values stand in it as if typed; what is typed over them is the coordinator's. */
  held(field: string): string {
    const given = this.#given(field)?.value;
    return this.draft.typed[field] ?? (typeof given === 'string' ? given : '');
  }

  /** The same of a number, as the reader writes numbers. */
  heldNumber(field: string): string {
    const given = this.#given(field);
    return this.draft.typed[field] ?? (given ? text.number(Number(given.value), 2) : '');
  }

  /** What is wrong at a part of the request: what was refused, or what the preview says. */
  error = (pointer: string) =>
    text.problem(this.refused.find((e) => e.pointer === pointer) ?? this.#preview()?.problems.find((e) => e.pointer === pointer));

  /** How many values the template or a formula gives, beside those typed. */
  get filledIn() {
    return Math.max((this.#preview()?.values.length ?? 0) - Object.keys(this.draft.typedValues).length, 0);
  }
}
