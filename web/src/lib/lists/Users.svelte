<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { entryPath, listKeys } from './queries';
  import { words } from './words';

  /** Who and what uses an entry, each a link. */
  let { list, entry, onclose }: { list: Api['ListSummary']; entry: Api['EntryResponse']; onclose: () => void } = $props();
  const w = $derived(words());
  let open = $state(true);
  const users = createQuery(() => ({
    queryKey: listKeys.users(list.key, entry.code),
    queryFn: () => data(api.GET('/api/lists/{list}/entries/{code}/users', { params: { path: { list: list.key, code: entry.code } } }))
  }));
  const groups = $derived(
    users.data
      ? [
          {
            name: w.people(users.data.people.length),
            links: users.data.people.map((p) => ({
              href: `/people/${p.employmentId}`,
              name: `${p.givenName} ${p.familyName}`,
              detail: p.number
            }))
          },
          {
            name: w.templates(users.data.templates.length),
            links: users.data.templates.map((t) => ({ href: `/templates/${t.code}`, name: t.name, detail: t.code }))
          },
          {
            name: w.otherEntries(users.data.entries.length),
            links: users.data.entries.map((e) => ({ href: entryPath(e.list, e.code), name: e.name, detail: e.code }))
          }
        ].filter((g) => g.links.length > 0)
      : []
  );
</script>

<Dialog bind:open title={w.users(entry.name)} {onclose}>
  <div class="px-5 pt-2 pb-5">
    {#if !users.data}<Waiting error={users.error} retry={() => users.refetch()} />{/if}
    {#if users.data && groups.length === 0}<p>{w.noUsers}</p>{/if}
    {#each groups as group (group.name)}
      <h3 class="pt-2 text-sm">{group.name}</h3>
      <ul class="columns-1 gap-x-6 text-xs sm:columns-2">
        {#each group.links as link (link.href)}
          <li class="border-rule border-b py-0.5">
            <a class="hover:underline" href={link.href}><bdi>{link.name}</bdi></a> <span class="text-soft">{link.detail}</span>
          </li>
        {/each}
      </ul>
    {/each}
  </div>
</Dialog>
