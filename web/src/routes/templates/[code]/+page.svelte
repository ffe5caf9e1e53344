<script lang="ts">
  import { page } from '$app/state';
  import { api, data, type Api } from '$lib/api/client';
  import { fieldLabel } from '$lib/fields/labels.svelte';
  import { sourceText } from '$lib/source';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  const code = $derived(page.params.code!);
  const template = createQuery(() => ({
    queryKey: ['templates', code],
    queryFn: () => data(api.GET('/api/templates/{code}', { params: { path: { code } } }))
  }));
  const t = $derived(text.t.templates);
  const shown = (v: Api['PreviewValue']) =>
    v.display ??
    (v.field === 'pay_rate'
      ? text.money(Number(v.value))
      : typeof v.value === 'string'
        ? v.value
        : v.value === null
          ? text.t.record.empty
          : String(v.value));
</script>

<svelte:head><title>{template.data?.name ?? t.title} · Fid</title></svelte:head>

{#if !template.data}
  <Waiting error={template.error} retry={() => template.refetch()} />
{:else}
  {@const own = template.data}
  <div class="page pb-8">
    <div class="flex flex-wrap items-baseline gap-x-4 pt-5 pb-2">
      <h1 class="text-2xl">{own.name}</h1>
      <p class="text-soft text-xs">{t.version(own.version)} · {t.gives}</p>
    </div>
    <div class="grid gap-x-10 lg:grid-cols-2">
      <section aria-labelledby="values">
        <h2 id="values" class="border-ink border-b pt-3 pb-1.5 text-base">
          {t.values} <span class="text-soft font-sans text-xs font-normal">{own.values.length}</span>
        </h2>
        <dl>
          {#each own.values as v (v.field)}
            <div class="border-rule grid grid-cols-2 gap-x-3 border-b py-1.5 sm:grid-cols-[9rem_1fr_auto]">
              <dt class="text-soft first-letter:uppercase">{fieldLabel(v.field)}</dt>
              <dd class="font-semibold">{shown(v)}</dd>
              <dd class="text-2xs text-faint">{sourceText(v.source)}</dd>
            </div>
          {/each}
        </dl>
      </section>
      <section aria-labelledby="tasks">
        <h2 id="tasks" class="border-ink border-b pt-3 pb-1.5 text-base">
          {t.tasks} <span class="text-soft font-sans text-xs font-normal">{own.tasks.length}</span>
        </h2>
        <ul>
          {#each own.tasks as task (task.key)}
            <li class="border-rule grid grid-cols-2 gap-x-3 border-b py-1.5 sm:grid-cols-[1fr_6rem_7rem_7rem]">
              <span class="font-semibold">{task.name}</span>
              <span class="text-soft text-xs">{text.owner(task.owner ?? '', task.ownerName)}</span>
              <span class="text-soft text-xs">{text.t.checklist.work(task.work)}</span>
              <span class="text-2xs text-faint">{sourceText(task.source)}</span>
            </li>
          {/each}
        </ul>
      </section>
    </div>
  </div>
{/if}
