<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { listsQuery, listKeys } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import { done } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { words } from './words';
  import { templateKeys } from './queries';

  /** What a file of templates holds, and for what the firm's lists do not have: to create it, or another instead. */
  let { file, onclose }: { file: Api['TemplateExport']; onclose: () => void } = $props();
  const client = useQueryClient();
  const w = $derived(words());
  const lists = listsQuery();
  const listName = (key: string) => lists.data?.find((l) => l.key === key)?.label[text.language] ?? key;
  const looked = crypto.randomUUID();
  let open = $state(true);
  let instead = $state<Record<string, string>>({});
  let errors = $state<string[]>([]);
  const check = createQuery(() => ({
    queryKey: templateKeys.imported(looked),
    queryFn: () => data(api.POST('/api/templates/import/check', { body: file })),
    retry: false
  }));
  const acting = createMutation(() => ({
    mutationFn: async () => {
      const imported = await data(
        api.POST('/api/templates/import', {
          body: {
            file,
            instead: Object.entries(instead)
              .filter(([, to]) => to)
              .map(([key, to]) => ({ list: key.slice(0, key.indexOf('/')), code: key.slice(key.indexOf('/') + 1), to }))
          }
        })
      );
      done(words().importing.done);
      await client.invalidateQueries({ queryKey: templateKeys.all });
      await client.invalidateQueries({ queryKey: listKeys.all });
      onclose();
      await goto(`/templates/${imported.codes.at(-1)}`);
    },
    onError: (e) => {
      errors = e instanceof ApiProblem && e.errors.length > 0 ? e.errors.map((p) => `${p.pointer}: ${text.problem(p)}`) : [text.failure(e)];
    }
  }));
  function act() {
    errors = [];
    acting.mutate();
  }
</script>

<Dialog bind:open title={w.importing.title} {onclose}>
  <div class="px-5 pt-2 pb-5">
    {#if check.isError}<p role="alert" class="text-rust font-semibold">
        {check.error instanceof ApiProblem && check.error.errors[0] ? text.problem(check.error.errors[0]) : text.failure(check.error)}
      </p>{/if}
    {#if check.data}
      <p>{w.importing.holds(text.list(check.data.templates))}</p>
      {#if check.data.missing.length > 0}
        <p class="pt-2 font-semibold">{w.importing.missing}</p>
        <ul>
          {#each check.data.missing as m (m.list + m.code)}
            {@const key = `${m.list}/${m.code}`}
            <li class="border-rule grid grid-cols-[1fr_14rem] items-center gap-4 border-b py-1">
              <span>{m.name} <span class="text-soft text-xs">{listName(m.list)}, {m.code}</span></span>
              <ListPicker
                id="instead-{m.list}-{m.code}"
                label={w.importing.instead(m.name)}
                list={m.list}
                value={instead[key] ?? ''}
                note={instead[key] ? '' : w.importing.create}
                onchange={(v) => (instead = { ...instead, [key]: v })}
              />
            </li>
          {/each}
        </ul>
      {/if}
    {/if}
    {#each errors as e (e)}<p role="alert" class="text-rust">{e}</p>{/each}
    <div class="flex justify-end gap-3 pt-3">
      <Button onclick={onclose}>{w.cancel}</Button>
      <Button look="primary" disabled={acting.isPending || !check.data} onclick={act}>{w.importing.act}</Button>
    </div>
  </div>
</Dialog>
