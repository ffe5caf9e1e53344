<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { nameOf, optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import { editingQuery } from './queries';
  import { offsetWords, shownJson } from './shown';
  import { keyedBy } from './spec';
  import { words as taskWords } from '$lib/tasks/words';
  import type { TaskKind } from './taskKinds';
  import { words } from './words';

  /** What differs between two versions of a template, part by part; tasks and messages by the names they have. */
  let { differences, names = {} }: { differences: Api['TemplateDifference'][]; names?: Record<string, string> } = $props();
  const w = $derived(words());
  const options = optionsQuery();
  const editing = editingQuery();
  const parts = $derived([...new Set(differences.map((d) => d.part))]);
  const partName = (part: string) => w.parts[part] ?? w.parts.about!;
  const property: Record<string, string> = $derived({ ...w.entry, ...w.task } as unknown as Record<string, string>);
  function what(d: Api['TemplateDifference']) {
    const key =
      d.key === null
        ? ''
        : d.part === 'values'
          ? fieldTitle(d.key)
          : keyedBy[d.part]
            ? nameOf(options.data?.options ?? [], keyedBy[d.part]!, d.key)
            : (names[d.key] ?? d.key);
    const whole: Record<string, string> = {
      name: w.about.name,
      nameDe: w.about.nameDe,
      buildsOn: w.about.buildsOn,
      when: w.when.title,
      order: w.about.order,
      opens: w.about.opens
    };
    return [
      d.key === null ? (whole[d.part] ?? d.part) : key,
      d.property ? (typeof property[d.property] === 'string' ? property[d.property] : d.property) : ''
    ]
      .filter(Boolean)
      .join(', ');
  }
  function shown(d: Api['TemplateDifference'], value: unknown) {
    if (value === null || value === undefined) return w.difference.nothing;
    const field = d.part === 'values' ? editing.data?.fields.find((f) => f.field.key === d.key)?.field : undefined;
    if (field?.list && typeof value === 'string') return nameOf(options.data?.options ?? [], field.list, value);
    if (d.property === 'kind' && typeof value === 'string') return taskWords().kinds[value as TaskKind] ?? value;
    if (typeof value === 'string' && value in text.t.owner) return text.owner(value, null);
    return offsetWords(value) ?? shownJson(value, field);
  }
</script>

{#each parts as part (part)}
  <h4 class="text-soft pt-2 font-sans text-xs">{partName(part)}</h4>
  <ul>
    {#each differences.filter((d) => d.part === part) as d (`${d.key}/${d.property}`)}
      <li class="border-rule border-b py-1">
        <strong>{what(d)}</strong>
        {#if d.key !== null && d.part !== 'values' && d.property === null}
          {d.after === null ? w.difference.removed : String(d.after) === 'dropped' ? w.difference.dropped : w.difference.added}
        {:else}
          <span class="text-soft">{shown(d, d.before)}</span> → {shown(d, d.after)}
        {/if}
      </li>
    {/each}
  </ul>
{/each}
