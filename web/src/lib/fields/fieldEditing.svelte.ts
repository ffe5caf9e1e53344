import type { Api } from '$lib/api/client';
import { nameOf as entryName } from '$lib/lists/queries';
import { text } from '$lib/text/index.svelte';
import { keyFrom, renamed, type Field } from './configuration';
import type { Drafting } from './drafting.svelte';
import { sentenceOf } from './findings';

/** A field of the draft, and what it takes to edit it. */
export interface EditedField {
  field: Field;
  /** Whether it is live, so that its key stays. */
  live: boolean;
  drafting: Drafting;
  /** The keys of the fields that ship. */
  shipped: string[];
  /** The entries of the firm's lists. */
  entries: Api['ListOption'][];
  /** The field goes by another key now. */
  onrename: (key: string) => void;
}

/** One field being edited: what is wrong with each part of it, and what follows from what is typed. */
export class FieldEditing {
  #of: () => EditedField;

  constructor(of: () => EditedField) {
    this.#of = of;
  }

  get shipped() {
    const { field, shipped } = this.#of();
    return shipped.includes(field.key);
  }

  get others() {
    const { field, drafting } = this.#of();
    return drafting.configuration.fields.filter((f) => f.key !== field.key);
  }

  /** Whether it has options of its own to choose from, rather than a list's entries. */
  get hasOptions() {
    const { field } = this.#of();
    return (field.type === 'choice' || field.type === 'choices') && !field.list;
  }

  /** What the field it depends on can hold; retired ones left out. */
  get parents(): { value: string; label: string }[] {
    const { field, drafting, entries } = this.#of();
    const parent = drafting.find(field.parent ?? '');
    if (parent?.options)
      return parent.options.filter((o) => !o.retired).map((o) => ({ value: o.value, label: o.label?.[text.language] || o.value }));
    return entries
      .filter((o) => parent?.list === o.list && !o.retired)
      .map((o) => ({ value: o.code, label: entryName(entries, o.list, o.code) }));
  }

  #finding(part: string) {
    const { field, drafting } = this.#of();
    return drafting.review?.findings.find((f) => f.fields[0] === field.key && f.part === part);
  }

  /** What is wrong with a part of it, as a sentence. */
  errorOf = (part: string): string | undefined => {
    const found = this.#finding(part);
    return found && sentenceOf(found, this.#of().drafting);
  };

  /** At which character of a formula it is wrong. */
  characterOf = (part: string): number | undefined => this.#finding(part)?.character ?? undefined;

  edit = (change: Partial<Field>) => {
    const { field, drafting } = this.#of();
    void drafting.edit(field.key, change);
  };

  /** Gives it another key, made from what is typed; one that ships or is live keeps its own. */
  rename = (typed: string) => {
    const { field, live, drafting, onrename } = this.#of();
    if (typed === '' || typed === field.key || live || this.shipped) return;
    const key = keyFrom(typed, this.others);
    void drafting.put(renamed(drafting.configuration, field.key, key));
    onrename(key);
  };

  /** Calls it something else. Until it is published its key follows its label, as long as nobody chose another. */
  relabel = (language: string, label: string) => {
    const { field, live } = this.#of();
    const follows = !live && !this.shipped && language === 'en' && field.key.replace(/_\d+$/, '') === keyFrom(field.label?.en ?? '', []);
    this.edit({ label: { ...field.label, [language]: label } });
    if (follows) this.rename(label);
  };
}
