<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, data, type Api } from '$lib/api/client';
  import ImportActs from '$lib/exchange/ImportActs.svelte';
  import ImportRows, { type Mended } from '$lib/exchange/ImportRows.svelte';
  import Reading from '$lib/exchange/Reading.svelte';
  import { underWay } from '$lib/exchange/upload';
  import { words } from '$lib/exchange/words';
  import { targetsQuery } from '$lib/exchange/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { importKeys } from '$lib/exchange/queries';

  const id = $derived(page.params.id!);
  const client = useQueryClient();
  const targets = targetsQuery();
  const w = $derived(words());
  // Live changes tell of progress; asked again now and then all the same, should the line be cut.
  const query = createQuery(() => ({
    queryKey: importKeys.one(id),
    queryFn: () => data(api.GET('/api/imports/{id}', { params: { path: { id } } })),
    refetchInterval: (q) => (q.state.data && underWay(q.state.data) ? 1000 : false)
  }));
  const run = $derived(query.data);
  const list = $derived(targets.data?.find((l) => l.key === run?.list));
  let only = $state('');
  const counts = $derived(
    run
      ? (
          [
            ['', run.rows],
            ['new', run.new],
            ['changed', run.changed],
            ['same', run.same],
            ['wrong', run.wrong],
            ['ignored', run.ignored]
          ] as [string, number][]
        ).filter(([key, n]) => key === '' || key === only || n > 0)
      : []
  );
  const failure = $derived.by(() => {
    if (!run?.failure) return '';
    const [kind, codes] = run.failure.split(/:(.*)/s);
    if (kind === 'used') return w.used(codes ?? '');
    if (kind === 'hires') return w.hiresStay(codes ?? '');
    if (kind === 'changed') return w.changedSince(codes ?? '');
    return w.failures[run.failure] ?? run.failure;
  });

  async function act(call: Promise<Api['ImportResponse']>) {
    try {
      client.setQueryData(['imports', id], await call);
      return true;
    } catch (e) {
      failed(e instanceof Error && e.message ? e.message : text.failure(e));
      await client.invalidateQueries({ queryKey: importKeys.one(id) });
      return false;
    }
  }
  const match = (change: Partial<Api['MatchingRequest']>) =>
    run &&
    void act(
      data(
        api.PUT('/api/imports/{id}/matching', {
          params: { path: { id } },
          body: {
            columns: run.columns,
            dates: run.dates,
            decimal: run.decimal,
            emptyClears: run.emptyClears,
            holdsFrom: run.holdsFrom,
            ...change
          }
        })
      )
    );
  // Every change is checked with all rows before the next is sent; the reader need not wait for that.
  let waiting = $state.raw<Mended[]>([]);
  /** The generation of the rows that the first of them was sent for. */
  let sentFor = $state<number>();
  $effect(() => {
    if (run?.state !== 'ready') return;
    if (sentFor === undefined) {
      if (waiting.length > 0) void send(waiting[0]!, run.generation);
    } else if (run.generation > sentFor || run.failure) {
      sentFor = undefined;
      waiting = waiting.slice(1);
    }
  });
  async function send(first: Mended, generation: number) {
    sentFor = generation;
    // An answer that is on its way tells how things were before.
    await client.cancelQueries({ queryKey: importKeys.one(id), exact: true });
    const taken = await act(data(api.PUT('/api/imports/{id}/cells', { params: { path: { id } }, body: first })));
    if (taken) return;
    sentFor = undefined;
    waiting = waiting.slice(1);
  }
  async function drop() {
    try {
      await data(api.DELETE('/api/imports/{id}', { params: { path: { id } } }));
      await client.invalidateQueries({ queryKey: importKeys.list });
      await goto('/exchange');
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

<svelte:head><title>{run?.fileName ?? w.title} · Fid</title></svelte:head>

{#if !run || !list}
  <Waiting error={query.error ?? targets.error} retry={() => query.refetch()} />
{:else}
  <div class="page pb-8">
    <p class="pt-4 text-xs"><a class="link" href="/exchange">{w.title}</a></p>
    <div class="flex flex-wrap items-baseline justify-between gap-3 pb-2">
      <h1 class="text-2xl"><bdi>{run.fileName}</bdi> → {list.label[text.language]}</h1>
      <p class="text-soft text-xs">{run.by} · {text.day(run.at.slice(0, 10))} · {w.states[run.state]}</p>
    </div>
    {#if failure}<p role="alert" class="border-rust bg-rust-tint text-rust mb-2 border-l-4 px-4 py-2">{failure}</p>{/if}
    {#if underWay(run)}
      <div role="status" class="border-ink border-y py-3">
        <p class="font-semibold">{w.states[run.state]}: {w.progress(run.done, run.rows)}</p>
        <progress
          class="accent-sea w-full"
          max={Math.max(run.rows, run.done, 1)}
          value={run.rows > 0 ? run.done : undefined}
          aria-label={w.states[run.state]}
        ></progress>
        <p class="text-soft text-xs">{w.leaveIt}</p>
      </div>
    {/if}
    {#if run.state === 'failed' || run.state === 'dropped'}
      <Button onclick={drop}>{w.dropIt}</Button>
    {:else if run.headers.length > 0 && run.generation > 0}
      {#if run.state === 'ready'}<Reading {run} {list} {match} />{/if}
      <div class="flex flex-wrap gap-2 py-2" role="group" aria-label={w.filter}>
        {#each counts as [key, n] (key)}
          <button
            type="button"
            aria-pressed={only === key}
            class="border-ink min-h-8 rounded border px-3 text-xs font-semibold {only === key
              ? 'bg-ink text-paper'
              : key === 'wrong'
                ? 'text-rust'
                : ''}"
            onclick={() => (only = key)}>{key === '' ? w.all : w.outcomes[key]} {text.number(n)}</button
          >
        {/each}
      </div>
      <ImportRows {run} {list} {only} {match} {waiting} mend={(mended) => (waiting = [...waiting, mended])} />
    {/if}
  </div>
  <ImportActs {run} {act} {drop} {match} />
{/if}
