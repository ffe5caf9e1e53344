<script lang="ts">
  import Parts from '$lib/admin/Parts.svelte';
  import { adminKeys } from '$lib/admin/queries';
  import { showMoment, words } from '$lib/admin/words';
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { done, failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';

  /** Does Fid do what it should by itself, and what does it need me for? */
  const w = $derived(words().work);
  const client = useQueryClient();
  const work = createQuery(() => ({
    queryKey: adminKeys.jobs,
    queryFn: () => data(api.GET('/api/jobs')),
    refetchInterval: (q) => (q.state.data?.jobs.some((j) => j.state === 'running') ? 500 : 5_000)
  }));
  const failures = $derived((work.data?.jobs ?? []).filter((j) => j.state === 'failed' || j.trouble).length);
  const again = createMutation(() => ({
    mutationFn: (id: string) => data(api.POST('/api/jobs/{id}/again', { params: { path: { id } } })),
    onSuccess: () => done(w.asked),
    onError: (e) => failed(text.failure(e)),
    onSettled: () => client.invalidateQueries({ queryKey: adminKeys.jobs })
  }));
  const due = (job: Api['JobResponse']) =>
    job.state === 'running'
      ? job.of
        ? w.progress(job.done ?? 0, job.of)
        : w.running
      : job.state === 'failed'
        ? w.waits
        : showMoment(job.due);
</script>

<svelte:head><title>{words().places.work} · Fid</title></svelte:head>

{#if !work.data}
  <Waiting error={work.error} retry={() => work.refetch()} />
{:else}
  <div class="page pb-10">
    <div class="pt-5 pb-1">
      <h1 class="text-2xl leading-tight {failures > 0 ? 'text-rust' : ''}">{w.news(failures)}</h1>
      <p class="text-soft">{w.intro}</p>
    </div>
    <div class="py-2"><Parts /></div>
    <div class="grid gap-x-10 lg:grid-cols-2">
      <section aria-labelledby="next">
        <h2 id="next" class="border-ink border-t pt-3 pb-1 text-base">{w.next}</h2>
        <ul>
          {#each work.data.jobs as job (job.id)}
            <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-b py-1.5">
              <span class="flex-1"
                >{w.kinds[job.kind] ?? job.kind}{#if job.argument && job.kind === 'import'}
                  · <a class="link" href="/exchange/{job.argument}">{words().ofPerson.look}</a>{/if}</span
              >
              <span class="whitespace-nowrap {job.state === 'failed' ? 'text-rust font-semibold' : 'text-soft'}">{due(job)}</span>
              <button
                type="button"
                class="link text-xs"
                disabled={again.isPending || job.state === 'running'}
                onclick={() => again.mutate(job.id)}>{job.state === 'failed' ? w.again : w.now}</button
              >
              {#if job.trouble}<p class="text-rust w-full text-xs">{job.trouble} {w.tried} {w.tries(job.tries)}.</p>{/if}
            </li>
          {/each}
        </ul>
      </section>
      <section aria-labelledby="ran">
        <h2 id="ran" class="border-ink border-t pt-3 pb-1 text-base">{w.ran}</h2>
        <ul>
          {#each work.data.runs as run (run.id)}
            <li class="border-rule flex flex-wrap items-baseline gap-x-4 border-b py-1.5">
              <span class="text-soft whitespace-nowrap">{showMoment(run.endedAt)}</span>
              <span class="flex-1">{w.kinds[run.kind] ?? run.kind}</span>
              {#if run.trouble}<span class="text-rust text-xs">{run.trouble}</span>{:else}<span class="text-soft"
                  >{w.handled(run.handled)}</span
                >{/if}
            </li>
          {:else}
            <li class="text-soft py-2">{w.nothing}</li>
          {/each}
        </ul>
      </section>
    </div>
  </div>
{/if}
