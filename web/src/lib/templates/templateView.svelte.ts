import type { Api } from '$lib/api/client';
import { keyIn } from '$lib/record/rows';
import { fieldTitle } from '$lib/text/fieldLabels.svelte';
import type { TemplateEditing } from './editing.svelte';
import { layerLooks } from './layers';
import { lists, type Part } from './spec';

/** Which part of a template is looked at, what is selected in it, and what is wrong where. */
export class TemplateView {
  #part = $state<Part>('values');
  /** The field of a value, or the key of an entry, that is selected in the part. */
  selected = $state<string>();
  #fields: () => Api['TemplateField'][];

  /** @param fields What a template can set and read. */
  constructor(
    readonly editing: TemplateEditing,
    fields: () => Api['TemplateField'][]
  ) {
    this.#fields = fields;
  }

  /** Of who works here a template has tasks alone. */
  readonly parts: Part[] = $derived.by(() =>
    (this.editing.spec.occasion ?? 'arrival') === 'arrival' ? ['values', ...lists, 'about'] : ['tasks', 'about']
  );

  get part(): Part {
    return this.parts.includes(this.#part) ? this.#part : 'tasks';
  }

  /** How each layer is drawn. */
  readonly looks = $derived.by(() => layerLooks(this.editing.example, this.editing.code));

  /** The parts in which something keeps it from being published; what belongs to none is under About. */
  readonly wrong = $derived.by(() =>
    this.parts.filter((part) => (this.editing.example?.findings ?? []).some((f) => f.blocks && this.#partOf(f.part) === part))
  );

  /** How much a hire would get of each part. */
  readonly counts = $derived.by((): Record<string, number> => {
    const example = this.editing.example;
    return {
      values: example?.values.length ?? 0,
      ...Object.fromEntries(lists.map((l) => [l, example?.entries.filter((e) => e.list === l).length ?? 0]))
    };
  });

  readonly #offer = $derived.by(() =>
    this.part === 'values' && this.selected ? this.#fields().find((f) => f.field.key === keyIn(this.selected!)) : undefined
  );

  /** The field whose value is selected. A value in a row is one of its column, and is named by what the row is about. */
  readonly field = $derived.by(() => {
    if (!this.#offer || !this.selected) return undefined;
    const title = fieldTitle(this.selected);
    return { ...this.#offer.field, key: this.selected, label: { en: title, de: title } };
  });

  /** Whether a template may set the field whose value is selected. */
  readonly maySet = $derived.by(() => this.#offer?.maySet ?? false);

  #partOf = (part: string): Part => (this.parts.includes(part as Part) ? (part as Part) : 'about');

  go(part: Part) {
    this.#part = part;
    this.selected = undefined;
  }
}
