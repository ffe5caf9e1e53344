<script lang="ts">
  import { page } from '$app/state';
  import { session } from '$lib/api/session.svelte';
  import { words } from './words';

  /** The parts of Admin. */
  const w = $derived(words().places);
  const parts = $derived([
    ...(session.may('see account') ? [{ href: '/admin', name: w.people }] : []),
    ...(session.may('see role') ? [{ href: '/admin/roles', name: w.roles }] : []),
    ...(session.may('edit work') ? [{ href: '/admin/work', name: w.work }] : []),
    ...(session.may('edit settings') ? [{ href: '/admin/texts', name: w.texts }] : []),
    ...(session.may('see trail') ? [{ href: '/admin/trail', name: w.trail }] : [])
  ]);
</script>

<nav aria-label={w.all} class="flex flex-wrap gap-x-6">
  {#each parts as part (part.href)}
    {@const here = page.url.pathname === part.href}
    <a
      href={part.href}
      aria-current={here ? 'page' : undefined}
      class="border-b-4 py-1 font-semibold {here ? 'border-sea' : 'text-soft hover:text-ink border-transparent'}">{part.name}</a
    >
  {/each}
</nav>
