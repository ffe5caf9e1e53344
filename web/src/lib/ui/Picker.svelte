<script lang="ts" module>
  export interface Choice {
    value: string;
    label: string;
    detail?: string;
    /** Other spellings it is found by. */
    also?: string;
  }
</script>

<script lang="ts">
  import { fits } from '$lib/text/fits';
  import { text } from '$lib/text/index.svelte';
  import { Combobox } from 'bits-ui';
  import Line from './Line.svelte';

  /** Chooses one of many by any part of its name or code. */
  interface Props {
    id: string;
    label: string;
    /** The value chosen; empty for none. */
    value: string;
    choices: Choice[];
    /** What to show for a value that is not among the choices. */
    shown?: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    /** Where the choices are fetched as one types. */
    onsearch?: (text: string) => void;
    /** Adds a choice that is missing, beginning from what was typed. */
    onadd?: (typed: string) => void;
    /** Says its label without showing it. */
    quiet?: boolean;
    onchange?: (value: string) => void;
  }
  let { id, label, value = $bindable(), choices, shown, note, noteTone, error, onsearch, onadd, quiet = false, onchange }: Props = $props();
  let typed = $state('');
  let searching = $state(false);
  let open = $state(false);

  const chosen = $derived(choices.find((c) => c.value === value)?.label ?? shown ?? '');
  const fitting = $derived.by(() => {
    if (onsearch || !searching || typed.trim() === '') return choices;
    return choices.filter((c) => fits(`${c.label} ${c.value} ${c.detail ?? ''} ${c.also ?? ''}`, typed));
  });

  // No choice has a value that begins with this.
  const ADD = '\u0000add';

  function take(next: string) {
    searching = false;
    if (next === ADD) {
      open = false;
      onadd?.(typed.trim());
      return;
    }
    value = next;
    onchange?.(next);
  }
</script>

<Line {id} {label} {note} {noteTone} {error} {quiet}>
  <Combobox.Root
    type="single"
    bind:open
    {value}
    onValueChange={(v) => v && take(v)}
    onOpenChangeComplete={(o) => !o && (searching = false)}
    inputValue={searching ? typed : chosen}
    items={fitting}
  >
    <Combobox.Input
      {id}
      autocomplete="off"
      dir="auto"
      class="w-full bg-transparent px-0.5 py-1 font-medium outline-none"
      aria-describedby="{id}-note"
      aria-invalid={error ? true : undefined}
      placeholder={text.t.common.choose}
      onfocus={(e) => e.currentTarget.select()}
      onkeydown={(e) => {
        // While something is being looked for nothing is chosen yet: saving would save what was there before.
        if (open && searching && (e.ctrlKey || e.metaKey) && e.key.toLowerCase() === 's') {
          e.preventDefault();
          e.stopPropagation();
        }
      }}
      oninput={(e) => {
        searching = true;
        typed = e.currentTarget.value;
        onsearch?.(typed);
        if (typed === '' && value) {
          value = '';
          onchange?.('');
        }
      }}
    />
    <Combobox.Trigger class="text-soft px-1" tabindex={-1} aria-label={label}>▾</Combobox.Trigger>
    <Combobox.Portal>
      <Combobox.Content
        class="border-ink bg-sheet z-50 max-h-72 w-[max(var(--bits-combobox-anchor-width),14rem)] overflow-y-auto rounded border py-1 shadow-lg"
        sideOffset={4}
      >
        <Combobox.Viewport>
          {#each fitting as choice (choice.value)}
            <Combobox.Item
              value={choice.value}
              label={choice.label}
              class="data-highlighted:bg-sea-tint px-3 py-1.5 data-selected:font-semibold"
            >
              <bdi>{choice.label}</bdi>
              {#if choice.detail}<span class="text-2xs text-soft"> {choice.detail}</span>{/if}
            </Combobox.Item>
          {:else}
            <p class="text-soft px-3 py-1.5">{text.t.common.noMatch}</p>
          {/each}
          {#if onadd}
            <Combobox.Item value={ADD} label="" class="border-rule data-highlighted:bg-sea-tint border-t px-3 py-1.5 font-semibold"
              >{text.t.common.addMissing(searching ? typed.trim() : '')}</Combobox.Item
            >
          {/if}
        </Combobox.Viewport>
      </Combobox.Content>
    </Combobox.Portal>
  </Combobox.Root>
</Line>
