<script lang="ts">
  import { words } from '../words';
  import Lines from './Lines.svelte';
  import type { PartProps } from './part';
  import UnlabelledInput from './UnlabelledInput.svelte';

  /** Options to choose from, in order, labelled in each language; one that was used is retired, not deleted. */
  interface Option {
    value: string;
    en: string;
    de?: string;
    retired?: boolean;
  }
  let { id, label, note, error, value, onchange }: PartProps<Option[]> = $props();
  const w = $derived(words());
  const clean = (options: Option[]) =>
    options.map((o) => ({ value: o.value, en: o.en || o.value, ...(o.de ? { de: o.de } : {}), retired: o.retired ?? false }));
</script>

<Lines
  {id}
  {label}
  {note}
  {error}
  items={value ?? []}
  heads={[w.options.value, w.options.en, w.options.de, '']}
  grid="grid-cols-2 sm:grid-cols-[6rem_1fr_1fr_auto_6rem]"
  addLabel={w.options.add}
  ordered
  blank={() => ({ value: '', en: '', retired: false }) as Option}
  onchange={(o) => onchange(clean(o))}
>
  {#snippet line(option, set)}
    <UnlabelledInput label={w.options.value} value={option.value} maxlength={200} onchange={(e) => set({ value: e.currentTarget.value })} />
    <UnlabelledInput label={w.options.en} value={option.en} maxlength={200} onchange={(e) => set({ en: e.currentTarget.value })} />
    <UnlabelledInput label={w.options.de} value={option.de ?? ''} maxlength={200} onchange={(e) => set({ de: e.currentTarget.value })} />
    <button type="button" class="link text-xs" aria-pressed={option.retired ?? false} onclick={() => set({ retired: !option.retired })}
      >{option.retired ? w.options.restore : w.options.retire}</button
    >
  {/snippet}
</Lines>
