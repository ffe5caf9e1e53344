<script lang="ts">
  import { keys } from '$lib/keys/keys.svelte';
  import { Dialog } from 'bits-ui';
  import type { Snippet } from 'svelte';

  /** A decision to be taken at once, or a sheet that is worked in. Keeps the focus, gives it back, closes with Esc. */
  interface Props {
    open: boolean;
    title: string;
    /** Hides the title from view; it is still said. */
    quiet?: boolean;
    place?: 'middle' | 'top' | 'bottom';
    children: Snippet;
    onclose?: () => void;
    /** Where the focus goes first; the first field otherwise. */
    focus?: string;
  }
  let { open = $bindable(), title, quiet = false, place = 'middle', children, onclose, focus }: Props = $props();
  const places = {
    middle: 'top-1/2 left-1/2 w-[min(44rem,calc(100vw-2rem))] -translate-x-1/2 -translate-y-1/2 rounded border border-ink',
    top: 'top-[12dvh] left-1/2 w-[min(36rem,calc(100vw-2rem))] -translate-x-1/2 rounded border border-ink',
    bottom: 'inset-x-0 bottom-0 border-t-2 border-sea'
  };
  $effect(() => (open ? keys.use(() => [], true) : undefined));
</script>

<Dialog.Root bind:open onOpenChange={(o) => !o && onclose?.()}>
  <Dialog.Portal>
    <Dialog.Overlay class="bg-paper/75 fixed inset-0 z-30" />
    <Dialog.Content
      class="bg-sheet text-ink fixed z-40 max-h-[92dvh] overflow-y-auto outline-none {places[place]}"
      onOpenAutoFocus={(e) => {
        const first = focus && document.querySelector<HTMLElement>(focus);
        if (first) {
          e.preventDefault();
          first.focus();
        }
      }}
    >
      <Dialog.Title class={quiet ? 'sr-only' : 'px-5 pt-4 text-xl'} level={2}>{title}</Dialog.Title>
      {@render children()}
    </Dialog.Content>
  </Dialog.Portal>
</Dialog.Root>
