<script lang="ts">
  import type { Snippet } from 'svelte';
  import type { HTMLButtonAttributes } from 'svelte/elements';
  import Key from './Key.svelte';

  interface Props extends HTMLButtonAttributes {
    children: Snippet;
    /** The one main action of a place is primary; what ends something is danger. */
    look?: 'primary' | 'plain' | 'danger';
    key?: string;
  }
  let { children, look = 'plain', key, type = 'button', ...rest }: Props = $props();
  const looks = {
    primary: 'bg-sea text-on-sea border-sea hover:brightness-110',
    plain: 'bg-transparent text-ink border-ink hover:bg-band',
    danger: 'bg-transparent text-rust border-rust hover:bg-rust-tint'
  };
</script>

<button
  {type}
  aria-keyshortcuts={key?.replace('Ctrl', 'Control')}
  class="inline-flex min-h-8 items-center rounded border px-3 py-1 text-sm font-semibold whitespace-nowrap disabled:opacity-60 {looks[
    look
  ]}"
  {...rest}
>
  {@render children()}{#if key}<Key name={key} onDark={look === 'primary'} />{/if}
</button>
