<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import FieldInput from '$lib/record/FieldInput.svelte';
  import { isNumeric, typedOf, valueOf, type Value } from '$lib/text/typed';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Line from '$lib/ui/Line.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import type { Drafting } from './drafting.svelte';
  import { roleName } from './roleName';
  import { words } from './words';
  import { fieldKeys } from './queries';

  /** A sample record with the draft applied: defaults, narrowing, rules and errors act as one types, and nothing is saved. */
  let { open = $bindable(), drafting, server }: { open: boolean; drafting: Drafting; server: Api['FieldsResponse'] } = $props();
  const w = $derived(words());
  let role = $state('coordinator');
  let stage = $state('');
  let entered = $state<Record<string, string>>({});
  let changed = $state<string[]>([]);

  const values = $derived(
    Object.fromEntries(
      Object.entries(entered).map(([key, typed]): [string, Value] => [key, valueOf({ type: drafting.find(key)?.type ?? 'text' }, typed)])
    )
  );
  const tried = createQuery(() => ({
    queryKey: fieldKeys.tried(drafting.configuration, role, stage, JSON.stringify(values), changed.join()),
    queryFn: () =>
      data(
        api.POST('/api/fields/draft/try', {
          body: {
            configuration: drafting.configuration as unknown as Record<string, unknown>,
            role,
            stage: stage || server.stages[0]?.key || null,
            values,
            changed
          }
        })
      ),
    enabled: open,
    retry: false,
    placeholderData: keepPreviousData
  }));
  const evaluation = $derived(tried.data?.evaluation);
  const set = $derived(new Map((evaluation?.set ?? []).map((s) => [s.field, s])));
  const shown = $derived(new Set(evaluation?.shown ?? []));
  const missing = $derived(new Set(evaluation?.missingNow ?? []));
  const misfits = $derived(new Map((evaluation?.errors ?? []).map((e) => [e.field, e.misfit])));
  const typed = (field: Api['FieldResponse']) => {
    if (field.key in entered) return entered[field.key]!;
    const given = set.get(field.key);
    return given ? typedOf({ type: field.type, value: given.value }) : '';
  };
  const noteOf = (key: string) => {
    const by = set.get(key)?.by;
    if (missing.has(key)) return w.trying.missingNow;
    return !by
      ? ''
      : by.startsWith('rule:')
        ? text.t.source.rule(fieldTitle(by.slice(5)))
        : by === 'default'
          ? text.t.source.default
          : text.t.source.computed;
  };
  function enter(key: string, value: string) {
    entered = { ...entered, [key]: value };
    changed = [key];
  }
</script>

<Dialog bind:open title={w.trying.title} place="bottom">
  <div class="page max-h-[80dvh] overflow-y-auto px-5 pb-6">
    <p class="text-soft">{w.trying.intro}</p>
    <div class="grid max-w-md grid-cols-2 gap-5">
      <Picker
        id="try-role"
        label={w.trying.role}
        bind:value={role}
        choices={server.roles.map((r) => ({ value: r, label: roleName(r, server.roleLabels) }))}
      />
      <Picker
        id="try-stage"
        label={w.trying.stage}
        value={stage || (server.stages[0]?.key ?? '')}
        choices={server.stages.map((s) => ({ value: s.key, label: s.name }))}
        onchange={(s) => (stage = s)}
      />
    </div>
    {#if tried.error}<p role="alert" class="text-rust font-semibold">{text.failure(tried.error)}</p>{/if}
    {#each tried.data?.sections ?? [] as section (section.key)}
      {@const fields = section.fields.filter((f) => shown.has(f.key))}
      {#if fields.length > 0}
        <h3 class="pt-3 text-base">{section.label[text.language]}</h3>
        <div class="grid grid-cols-1 gap-x-5 min-[28rem]:grid-cols-2 md:grid-cols-4">
          {#each fields as field (field.key)}
            {@const misfit = misfits.get(field.key)}
            {#if field.type === 'rows'}
              <!-- There is no row to try yet; that there may be some is shown. -->
              <Line id="try-{field.key}" label={field.label[text.language]} note={noteOf(field.key)} dotted>
                <input
                  id="try-{field.key}"
                  readonly
                  value=""
                  class="w-full bg-transparent outline-none"
                  aria-describedby="try-{field.key}-note"
                />
              </Line>
            {:else if field.access === 'edit'}
              <FieldInput
                id="try-{field.key}"
                {field}
                value={typed(field)}
                numeric={isNumeric(field) ? typed(field) : undefined}
                shown={set.get(field.key)?.display ?? ''}
                within={field.parent ? (entered[field.parent] ?? '') : ''}
                note={noteOf(field.key)}
                noteTone={missing.has(field.key) ? 'ochre' : 'faint'}
                error={misfit ? text.t.common.misfit[misfit] : undefined}
                onchange={(v) => enter(field.key, v)}
              />
            {:else}
              <Line
                id="try-{field.key}"
                label={field.label[text.language]}
                note={noteOf(field.key)}
                noteTone={missing.has(field.key) ? 'ochre' : 'faint'}
                dotted
              >
                <input
                  id="try-{field.key}"
                  readonly
                  value={set.get(field.key)?.display ?? typed(field)}
                  class="text-soft w-full bg-transparent px-0.5 py-1 font-medium outline-none"
                  aria-describedby="try-{field.key}-note"
                />
              </Line>
            {/if}
          {/each}
        </div>
      {/if}
    {/each}
    {#if tried.data?.sections.length === 0}<p class="pt-3">{w.trying.hiddenFrom}</p>{/if}
    <div class="flex justify-end pt-4"><Button onclick={() => (open = false)}>{w.trying.close}</Button></div>
  </div>
</Dialog>
