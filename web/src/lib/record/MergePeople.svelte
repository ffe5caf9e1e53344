<script lang="ts">
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { words } from '$lib/hires/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { recordKeys } from './queries';

  /** Another record of the same person: compared value by value, made one, and parted again. */
  let { open = $bindable(), id }: { open: boolean; id: string } = $props();
  const client = useQueryClient();
  const w = $derived(words().merge);
  let other = $state('');
  let take = $state<string[]>([]);
  let close = $state<string[]>([]);
  let why = $state('');
  const comparison = createQuery(() => ({
    queryKey: recordKeys.merge(id, other),
    queryFn: () => data(api.GET('/api/people/{id}/merge', { params: { path: { id }, query: { with: other } } })),
    enabled: other !== '',
    retry: false
  }));
  const both = $derived((comparison.data?.values ?? []).filter((v) => v.kept !== v.other));
  // What goes on of both afterwards: two at once may be meant, and mostly are one person entered twice.
  const running = $derived([...(comparison.data?.keptStints ?? []), ...(comparison.data?.otherStints ?? [])].filter((s) => s.goesOn));
  const remaining = $derived(running.filter((s) => !s.hireId || !close.includes(s.hireId)));
  const when = (s: Api['MergedStint']) =>
    s.end ? w.until(text.day(s.start), text.day(s.end)) : s.hireId ? w.from(text.day(s.start)) : w.since(text.day(s.start));
  const error = $derived(
    comparison.error instanceof ApiProblem ? (text.problem(comparison.error.errors[0]) ?? text.failure(comparison.error)) : undefined
  );

  const merging = createMutation(() => ({
    mutationFn: async () => {
      const merged = await data(
        api.POST('/api/people/{id}/merge', { params: { path: { id } }, body: { with: other, take, close, why: why.trim() || null } })
      );
      open = false;
      done(words().merge.done, { label: words().merge.undo, run: () => part(merged.id) });
      await client.invalidateQueries();
    },
    onError: (e) => {
      failed(e instanceof ApiProblem && e.errors[0] ? (text.problem(e.errors[0]) ?? '') : text.failure(e));
    }
  }));
  function merge() {
    merging.mutate();
  }
  async function part(merge: string) {
    try {
      await data(api.DELETE('/api/people/merges/{id}', { params: { path: { id: merge } } }));
      open = false;
      done(words().merge.undone);
      await client.invalidateQueries();
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

<Dialog bind:open title={w.title} focus="#merge-other">
  <div class="px-5 pt-2 pb-5">
    <PersonPicker
      id="merge-other"
      label={w.other}
      value={other}
      shown=""
      {error}
      onchange={(v) => {
        other = v;
        take = [];
        close = [];
      }}
    />
    {#if comparison.data}
      <p class="text-soft text-xs">{w.intro}</p>
      <table class="w-full">
        <thead class="text-soft text-left text-xs"
          ><tr class="border-ink border-b"
            ><th class="py-1 font-normal">{w.fact}</th
            >{#each [{ name: comparison.data.kept, stints: comparison.data.keptStints }, { name: comparison.data.other, stints: comparison.data.otherStints }] as side, i (i)}
              <th class="py-1 pr-3 align-bottom font-normal"
                ><span class="text-ink block font-semibold">{side.name}</span>
                {#each side.stints as s (s.number)}
                  <span class="block">{w.stint(s.number, s.job ?? '')}, {when(s)}{s.hireId ? `, ${w.underWay}` : ''}</span>
                {/each}</th
              >
            {/each}</tr
          ></thead
        >
        <tbody>
          {#each both as v (v.field)}
            {@const label = fieldTitle(v.field)}
            <tr class="border-rule border-b">
              <th scope="row" class="text-soft py-1 pr-3 text-left font-normal">{label}</th>
              {#if v.kept !== null && v.other !== null}
                <td
                  ><label class="flex items-center gap-2"
                    ><input
                      type="radio"
                      name="merge-{v.field}"
                      aria-label={w.keep(label, v.kept)}
                      checked={!take.includes(v.field)}
                      onchange={() => (take = take.filter((f) => f !== v.field))}
                    />{v.kept}</label
                  ></td
                >
                <td
                  ><label class="flex items-center gap-2"
                    ><input
                      type="radio"
                      name="merge-{v.field}"
                      aria-label={w.take(label, v.other)}
                      checked={take.includes(v.field)}
                      onchange={() => (take = [...take, v.field])}
                    />{v.other}</label
                  ></td
                >
              {:else}<td>{v.kept ?? w.nothing}</td><td>{v.other ?? w.nothing}</td>{/if}
            </tr>
          {/each}
        </tbody>
      </table>
      <div class="pt-3">
        <p class="text-xs">{w.remains(remaining.length)}</p>
        {#each running as s (s.number)}
          <p class="text-xs">
            {#if s.hireId && running.length > 1}
              <label class="flex items-center gap-2"
                ><input
                  type="checkbox"
                  checked={close.includes(s.hireId)}
                  disabled={remaining.length === 1 && !close.includes(s.hireId)}
                  onchange={(e) => (close = e.currentTarget.checked ? [...close, s.hireId!] : close.filter((h) => h !== s.hireId))}
                />{close.includes(s.hireId) ? w.closed(s.number) : w.closeHire(s.number)}</label
              >
            {:else}{w.stint(s.number, s.job ?? '')}, {when(s)}{/if}
          </p>
        {/each}
      </div>
      <div class="pt-3"><TextField id="merge-why" label={w.why} bind:value={why} maxlength={500} /></div>
    {/if}
    <div class="flex flex-wrap justify-end gap-3 pt-3">
      {#if comparison.data?.last}<Button onclick={() => part(comparison.data!.last!)}>{w.last}</Button>{/if}
      <Button onclick={() => (open = false)}>{words().cancel}</Button>
      <Button look="primary" disabled={merging.isPending || !comparison.data} onclick={merge}>{w.do}</Button>
    </div>
  </div>
</Dialog>
