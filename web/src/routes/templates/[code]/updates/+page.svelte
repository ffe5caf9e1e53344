<script lang="ts">
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { api, data, type Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { offsetWords, shownJson } from '$lib/templates/shown';
  import { words } from '$lib/templates/words';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { templateKeys } from '$lib/templates/queries';

  /** The hires under way on older versions: what each takes, keeps, or needs decided; one by one or in a batch, and back again. */
  const client = useQueryClient();
  const w = $derived(words());
  const code = $derived(page.params.code!);
  const template = createQuery(() => ({
    queryKey: templateKeys.one(code),
    queryFn: () => data(api.GET('/api/templates/{code}', { params: { path: { code } } }))
  }));
  const updates = createQuery(() => ({
    queryKey: templateKeys.updates(code),
    queryFn: () => data(api.GET('/api/templates/{code}/updates', { params: { path: { code } } }))
  }));
  const runs = createQuery(() => ({ queryKey: templateKeys.runs, queryFn: () => data(api.GET('/api/templates/updates')) }));
  let chosen = $state<string[]>([]);
  /** Conflicts decided for the template, by hire and fact. */
  let taken = $state<Record<string, boolean>>({});
  const possible = $derived((updates.data ?? []).filter((u) => u.trouble === null));
  const selected = $derived(possible.filter((u) => chosen.includes(u.id)));
  type Fact = Api['MergedFactResponse'];
  const label = (f: Fact) =>
    f.part === 'values'
      ? fieldTitle(f.key)
      : [f.name ?? f.key, f.property ? ((w.task as unknown as Record<string, string>)[f.property] ?? f.property) : '']
          .filter(Boolean)
          .join(', ');
  const shown = (f: Fact, value: unknown, display: string | null) =>
    value === null || value === undefined
      ? w.touch.nothing
      : (display ??
        offsetWords(value) ??
        (typeof value === 'string' && value in text.t.owner ? text.owner(value, null) : shownJson(value)));
  const isWhole = (f: Fact) => f.part === 'tasks' && f.property === null;
  const facts = (u: Api['HireUpdateResponse']) => u.facts.filter((f) => f.fate !== 'agree' && f.fate !== 'same');

  const applying = createMutation(() => ({
    mutationFn: async (hires: Api['HireUpdateResponse'][]) => {
      const run = await data(
        api.POST('/api/templates/updates', {
          body: {
            hires: hires.map((u) => ({
              id: u.id,
              take: u.facts.filter((f) => f.fate === 'take' || (f.fate === 'conflict' && taken[`${u.id} ${f.fact}`])).map((f) => f.fact)
            }))
          }
        })
      );
      chosen = [];
      done(w.touch.done(run.hires), { label: w.touch.undo, run: () => undo(run.id) });
      await client.invalidateQueries();
    },
    onError: (e) => {
      failed(text.failure(e));
    }
  }));
  function apply(hires: Api['HireUpdateResponse'][]) {
    applying.mutate(hires);
  }
  async function undo(id: string) {
    try {
      const undone = await data(api.POST('/api/templates/updates/{id}/undo', { params: { path: { id } } }));
      done(undone.left.length > 0 ? words().touch.left(text.list(undone.left)) : words().touch.undone(undone.undone));
      await client.invalidateQueries();
    } catch (e) {
      failed(text.failure(e));
    }
  }
  const toggle = (id: string) => (chosen = chosen.includes(id) ? chosen.filter((c) => c !== id) : [...chosen, id]);
  $effect(() => keys.use(() => [{ key: 'Escape', run: () => void goto(`/templates/${code}`) }]));
  const name = $derived(template.data?.live?.name ?? code);
</script>

<svelte:head><title>{w.touch.title(name)} · Fid</title></svelte:head>

{#if !updates.data}
  <Waiting error={updates.error} retry={() => updates.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-end justify-between gap-3 pt-5 pb-3">
      <h1 class="text-2xl leading-tight">{updates.data.length === 0 ? w.touch.none : w.touch.title(name)}</h1>
      {#if possible.length > 1}<Button onclick={() => (chosen = possible.map((u) => u.id))}>{w.touch.all}</Button>{/if}
    </div>
    <ul>
      {#each updates.data as u (u.id)}
        {@const open = u.facts.filter((f) => f.fate === 'conflict' && !taken[`${u.id} ${f.fact}`]).length}
        <li class="border-ink border-t py-2">
          <div class="flex flex-wrap items-baseline gap-x-4">
            <label class="flex items-baseline gap-2 font-semibold">
              <input
                type="checkbox"
                checked={chosen.includes(u.id)}
                disabled={u.trouble !== null}
                onchange={() => toggle(u.id)}
                aria-label="{w.touch.choose} {u.name}"
              />
              <a class="hover:underline" href="/hires/{u.id}/checklist">{u.name}</a>
            </label>
            <span class="text-soft text-xs">{text.day(u.start)} · {w.version(u.templateVersion)}</span>
            {#if open > 0}<strong class="text-ochre text-xs">{w.touch.toDecide(open)}</strong>{/if}
            {#if u.trouble !== null}<span class="text-rust text-xs">{w.touch.trouble}: {u.trouble}</span>{/if}
          </div>
          <ul class="pl-6">
            {#each facts(u) as f (f.fact)}
              <li class="border-rule grid grid-cols-1 items-baseline gap-x-4 border-b py-1 sm:grid-cols-[16rem_1fr_13rem]">
                <span>{label(f)}</span>
                <span>
                  {#if isWhole(f)}
                    {f.theirs === null ? w.touch.goneTask : w.touch.newTask}
                  {:else if f.fate === 'take'}
                    <span class="text-soft">{shown(f, f.mine, f.mineShown)}</span> → <strong>{shown(f, f.theirs, f.theirsShown)}</strong>
                  {:else}
                    {w.touch.mine} <strong>{shown(f, f.mine, f.mineShown)}</strong>, {w.touch.theirs}
                    {shown(f, f.theirs, f.theirsShown)}
                  {/if}
                </span>
                {#if f.fate === 'conflict'}
                  <label class="text-ochre flex items-center gap-2 text-xs font-semibold">
                    <input
                      type="checkbox"
                      checked={taken[`${u.id} ${f.fact}`] ?? false}
                      aria-label="{u.name}, {w.touch.decide(label(f))}"
                      onchange={(e) => (taken = { ...taken, [`${u.id} ${f.fact}`]: e.currentTarget.checked })}
                    />{taken[`${u.id} ${f.fact}`] ? w.touch.take : w.touch.conflict}
                  </label>
                {:else}<span class="text-soft text-xs">{f.fate === 'take' ? w.touch.take : w.touch.keep}</span>{/if}
              </li>
            {/each}
          </ul>
        </li>
      {/each}
    </ul>
    {#if runs.data && runs.data.length > 0}
      <h2 class="pt-6 pb-1 text-base">{w.touch.runs}</h2>
      <ul>
        {#each runs.data as run (run.id)}
          <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-b py-1.5">
            <span class="flex-1">{w.touch.run(run.hires, run.byName)}, {text.day(run.at.slice(0, 10))}</span>
            {#if !run.undone}<button type="button" class="link text-xs" onclick={() => undo(run.id)}>{w.touch.undo}</button>{/if}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
  {#if selected.length > 0}
    <FooterSheet label={w.touch.update(selected.length)}>
      <p class="flex-1">{text.list(selected.slice(0, 6).map((u) => u.name))}{selected.length > 6 ? ' …' : ''}</p>
      <Button look="primary" disabled={applying.isPending} onclick={() => apply(selected)}>{w.touch.update(selected.length)}</Button>
    </FooterSheet>
  {/if}
{/if}
