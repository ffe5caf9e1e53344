import type { Api } from '$lib/api/client';
import { text } from '$lib/text/index.svelte';
import { nameOf, type Field } from './configuration';
import type { en } from './words/en';

type Words = typeof en;

/** What a field holds, in a few words. */
export function kindOf(field: Field, fields: Field[], w: Words): string {
  const kind = field.type === 'choice' && field.options ? w.choiceOf(field.options.filter((o) => !o.retired).length) : w.types[field.type];
  const parent = fields.find((f) => f.key === field.parent);
  return parent ? `${kind}, ${w.within(nameOf(parent, text.language))}` : kind;
}

/** When a field must be filled, and whether it is shown, in a few words. */
export function requiredOf(field: Field, stages: Api['FieldStage'][], w: Words): string {
  const required = field.required;
  const parts = [
    required === 'always'
      ? w.always
      : typeof required === 'object'
        ? w.from(stages.find((s) => s.key === required.from)?.name ?? required.from)
        : '',
    field.requiredWhen ? w.when(field.requiredWhen) : '',
    field.showWhen === 'false' ? w.isHidden : field.showWhen ? w.shownWhen(field.showWhen) : ''
  ];
  return parts.filter((p) => p !== '').join(', ') || '–';
}
