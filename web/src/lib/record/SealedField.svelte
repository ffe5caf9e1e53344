<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { inFours } from '$lib/text/inFours';
  import { text } from '$lib/text/index.svelte';
  import Line from '$lib/ui/Line.svelte';
  import { failed } from '$lib/ui/toast';
  import { reveal } from './reveal';
  import { words } from './words';

  /** A sensitive value: a mask, until somebody asks for what it stands for, which is put on record. */
  interface Props {
    id: string;
    employment: string;
    field: Api['FieldResponse'];
    note?: string;
    noteTone?: 'faint' | 'ochre';
    /** Replaces the value; left out where the reader may not. */
    replace?: () => void;
  }
  let { id, employment, field, note, noteTone, replace }: Props = $props();
  const t = $derived(words());
  let open = $state<string>();

  async function toggle() {
    if (open !== undefined) {
      open = undefined;
      return;
    }
    try {
      open = await reveal(employment, field.key);
    } catch (e) {
      failed(text.failure(e));
    }
  }
</script>

<Line {id} label={field.label[text.language]} {note} {noteTone} dotted={!replace}>
  <span class="flex w-full items-baseline gap-3">
    <input
      {id}
      readonly
      dir="auto"
      value={open === undefined ? String(field.value) : field.type === 'iban' ? inFours(open) : open}
      class="w-full min-w-0 bg-transparent px-0.5 py-1 font-medium outline-none"
      aria-describedby="{id}-note"
    />
    <button type="button" class="link text-xs" aria-pressed={open !== undefined} onclick={toggle}
      >{open === undefined ? text.t.common.show : t.hide}</button
    >
    {#if replace}<button type="button" class="link text-xs" onclick={replace}>{t.replace}</button>{/if}
  </span>
</Line>
