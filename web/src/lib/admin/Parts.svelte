<script lang="ts">
  import { page } from '$app/state';
  import { words } from './words';

  /** The parts of Admin. */
  const w = $derived(words().places);
  const parts = $derived([
    { href: '/admin', name: w.people },
    { href: '/admin/work', name: w.work },
    { href: '/admin/trail', name: w.trail }
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
