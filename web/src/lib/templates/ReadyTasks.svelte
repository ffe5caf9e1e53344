<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { optionsQuery } from '$lib/lists/queries';
  import { fits } from '$lib/text/fits';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { sharedTasksQuery, templateKeys } from './queries';
  import { offsetWords } from './shown';
  import { taskName, type Entry } from './spec';
  import { words } from './words';

  /** Ready tasks, and the firm's shared ones, to take into a checklist. */
  interface Props {
    open: boolean;
    /** Keys that are there already. */
    taken: string[];
    ontake: (entries: Entry[]) => void;
  }
  let { open = $bindable(), taken, ontake }: Props = $props();
  const w = $derived(words());
  const ready = createQuery(() => ({
    queryKey: templateKeys.ready,
    queryFn: () => data(api.GET('/api/ready-tasks')),
    staleTime: Infinity
  }));
  const shared = sharedTasksQuery();
  const options = optionsQuery();
  let find = $state('');
  let chosen = $state<string[]>([]);
  const teams = $derived((options.data?.options ?? []).filter((o) => o.list === 'teams').map((o) => `team:${o.code}`));
  const nameOf = (task: Api['ReadyTask']) => task.names[text.language] ?? task.names.en!;
  const groups = $derived(
    Object.entries(w.ready.groups)
      .map(([group, name]) => ({
        name,
        tasks: (ready.data ?? []).filter(
          (t) => t.group === group && (find.trim() === '' || fits(`${t.key} ${Object.values(t.names).join(' ')}`, find))
        )
      }))
      .filter((g) => g.tasks.length > 0)
  );
  const own = $derived(
    (shared.data ?? []).filter(
      (s) => find.trim() === '' || fits(`${s.key} ${String(s.properties.name)} ${String(s.properties.nameDe ?? '')}`, find)
    )
  );

  function take() {
    const entries: Entry[] = [];
    for (const task of (ready.data ?? []).filter((t) => chosen.includes(t.key))) {
      // A team the firm does not have cannot do it: the coordinator has it until somebody says who.
      const owner = task.owner.startsWith('team:') && !teams.includes(task.owner) ? 'coordinator' : task.owner;
      const properties: Record<string, unknown> = {
        name: task.names.en,
        nameDe: task.names.de,
        stage: task.stage,
        owner,
        work: task.work,
        dayOne: task.dayOne,
        required: task.required
      };
      if (task.due) properties.due = task.due;
      if (task.instructions.en) properties.instructions = task.instructions.en;
      if (task.instructions.de) properties.instructionsDe = task.instructions.de;
      entries.push({ key: task.key, properties: properties as never, drop: false, shared: null });
    }
    for (const task of own.filter((s) => chosen.includes(`shared:${s.key}`)))
      entries.push({ key: task.key, properties: task.properties as never, drop: false, shared: task.key });
    ontake(entries);
    open = false;
  }
  const toggle = (key: string) => (chosen = chosen.includes(key) ? chosen.filter((c) => c !== key) : [...chosen, key]);
</script>

{#snippet line(key: string, name: string, about: string, there: boolean)}
  <li class="border-rule border-b">
    <label class="flex items-baseline gap-3 py-1 {there ? 'text-soft' : ''}">
      <input type="checkbox" disabled={there} checked={chosen.includes(key) || there} onchange={() => toggle(key)} />
      <span class="flex-1">{name}</span><span class="text-soft text-xs">{about}</span>
    </label>
  </li>
{/snippet}

<Dialog bind:open title={w.ready.title} focus="#ready-find">
  <div class="px-5 pt-2">
    <input
      id="ready-find"
      bind:value={find}
      aria-label={w.ready.find}
      placeholder={w.ready.find}
      class="border-ink min-h-8 w-full border-b bg-transparent px-0.5"
    />
    <div class="h-[50dvh] overflow-y-auto pt-2">
      {#if own.length > 0}
        <h3 class="pt-2 font-sans text-xs font-semibold">{w.ready.shared}</h3>
        <ul>
          {#each own as task (task.key)}
            {@render line(
              `shared:${task.key}`,
              taskName(task.key, task.properties),
              text.owner(String(task.properties.owner), null),
              taken.includes(task.key)
            )}
          {/each}
        </ul>
      {/if}
      {#each groups as group (group.name)}
        <h3 class="pt-3 font-sans text-xs font-semibold">{group.name}</h3>
        <ul>
          {#each group.tasks as task (task.key)}
            {@render line(
              task.key,
              nameOf(task),
              [w.task.days(task.work), offsetWords(task.due)].filter(Boolean).join(' · '),
              taken.includes(task.key)
            )}
          {/each}
        </ul>
      {/each}
    </div>
    <div class="flex justify-end gap-3 py-4">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button look="primary" disabled={chosen.length === 0} onclick={take}>{w.ready.take(chosen.length)}</Button>
    </div>
  </div>
</Dialog>
