<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { nameOf, type Configuration } from '$lib/fields/configuration';
  import FieldInput from '$lib/record/FieldInput.svelte';
  import { typedOf } from '$lib/text/typed';
  import { sourceText } from '$lib/text/source';
  import { editingQuery } from '$lib/templates/queries';
  import { text } from '$lib/text/index.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { draft } from './draft.svelte';
  import { fieldKeys } from '$lib/fields/queries';

  /** All fields of the record, section by section, with what the template gives them already in place. */
  interface Props {
    preview?: Api['HirePreview'];
    error: (pointer: string) => string | undefined;
    /** Fields that stand elsewhere already. */
    without: string[];
  }
  let { preview, error, without }: Props = $props();
  const offered = editingQuery();
  const server = createQuery(() => ({ queryKey: fieldKeys.configuration, queryFn: () => data(api.GET('/api/fields')), staleTime: 60_000 }));
  const sections = $derived.by(() => {
    const configuration = server.data?.configuration as unknown as Configuration | undefined;
    if (!configuration || !offered.data) return [];
    const byKey = new Map(offered.data.fields.map((f) => [f.field.key, f.field]));
    return configuration.sections
      .map((s) => ({
        key: s.key,
        name: nameOf(s, text.language),
        fields: configuration.fields
          .filter((f) => f.section === s.key && !without.includes(f.key) && f.access?.coordinator === 'edit')
          .map((f) => byKey.get(f.key)!)
          .filter((f) => f && f.type !== 'computed' && f.type !== 'file' && f.type !== 'rows' && f.key !== 'start_date')
      }))
      .filter((s) => s.fields.length > 0);
  });
  const given = (key: string) => preview?.values.find((v) => v.field === key);
</script>

{#each sections as section (section.key)}
  <section aria-labelledby="full-{section.key}" class="col-span-full">
    <h3 id="full-{section.key}" class="border-ink border-b pt-3 pb-1 text-base">{section.name}</h3>
    <div class="grid grid-cols-1 gap-x-5 pt-2 sm:grid-cols-2 md:grid-cols-4">
      {#each section.fields as field (field.key)}
        {@const value = given(field.key)}
        <FieldInput
          id="new-{field.key}"
          {field}
          value={draft.typed[field.key] ?? typedOf({ type: field.type, value: (value?.value ?? null) as never })}
          shown={value?.display ?? ''}
          note={value ? sourceText(value.source) : undefined}
          error={error(`/typed/${field.key}`)}
          onchange={(v) => draft.set(field.key, v, field.type)}
        />
      {/each}
    </div>
  </section>
{/each}
