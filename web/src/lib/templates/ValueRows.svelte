<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { fieldTitle } from '$lib/text/fieldLabels.svelte';
  import FieldInput from '$lib/record/FieldInput.svelte';
  import { addressIn, keyIn } from '$lib/record/rows';
  import { nameOf, optionsQuery } from '$lib/lists/queries';
  import Picker from '$lib/ui/Picker.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { text } from '$lib/text/index.svelte';
  import LayerMark from './LayerMark.svelte';
  import type { LayerLook } from './layers';
  import { shownJson } from './shown';
  import { formulaOf } from './spec';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** The record values an example would have, each with the layers that set it. */
  interface Props {
    editing: TemplateEditing;
    offered: Api['TemplateField'][];
    looks: LayerLook[];
    selected: string | undefined;
    mayEdit: boolean;
    onselect: (field: string) => void;
  }
  let { editing, offered, looks, selected, mayEdit, onselect }: Props = $props();
  const w = $derived(words());
  const options = optionsQuery();
  let adding = $state(false);
  let chosen = $state('');
  const own = $derived(editing.spec.values as Record<string, unknown>);
  const fieldOf = (key: string) => offered.find((o) => o.field.key === keyIn(key))?.field;
  const rows = $derived.by(() => {
    const order = new Map(offered.map((o, i) => [o.field.key, i]));
    // What is only chosen for the example is no value of the template.
    const worked = new Map(
      (editing.example?.values ?? []).filter((v) => v.from !== 'typed' || v.displaced.length > 0).map((v) => [v.field, v])
    );
    return [...new Set([...worked.keys(), ...Object.keys(own)])]
      .sort((a, b) => (order.get(keyIn(a)) ?? 999) - (order.get(keyIn(b)) ?? 999))
      .map((field) => ({ field, worked: worked.get(field) }));
  });
  const nameAt = (id: string) => looks.find((l) => l.id === id)?.name ?? (id === 'typed' ? text.t.source.typed : id);
  const plain = (field: string, value: unknown) => {
    const list = fieldOf(field)?.list;
    return typeof value === 'string' && list ? nameOf(options.data?.options ?? [], list, value) : shownJson(value, fieldOf(field));
  };
  const choices = $derived(
    offered.filter((o) => o.maySet && !(o.field.key in own)).map((o) => ({ value: o.field.key, label: o.field.label[text.language] }))
  );
  // Of a column the row is asked for, by what it is about.
  const about = $derived(fieldOf(offered.find((o) => o.field.key === chosen)?.rowKey ?? ''));
  let row = $state('');
  function take(address: string) {
    adding = false;
    if (!(address in own)) editing.setValue(address, null);
    onselect(address);
  }
  export function add() {
    adding = true;
    chosen = row = '';
    requestAnimationFrame(() => document.getElementById('add-value')?.focus());
  }
</script>

<h2 class="pb-1 text-lg">{w.parts.values}</h2>
<ul>
  {#each rows as { field, worked } (field)}
    {@const findings = (editing.example?.findings ?? []).filter((f) => f.part === 'values' && f.key === field)}
    {@const formula = worked ? worked.formula : formulaOf(own[field])}
    <li>
      <button
        type="button"
        id="value-{field}"
        class="grid w-full grid-cols-[1fr_auto] items-center gap-x-3 border px-2 py-2 text-left sm:grid-cols-[10rem_1fr_auto] {selected ===
        field
          ? 'border-sea bg-sheet'
          : 'border-b-rule hover:bg-band border-transparent'}"
        aria-pressed={selected === field}
        onclick={() => onselect(field)}
      >
        <span class="text-soft truncate">{fieldTitle(field)}</span>
        <span class="col-start-1 sm:col-start-auto">
          <strong class={field in own ? '' : 'font-medium'}
            >{worked ? shownJson(worked.value, fieldOf(field), worked.display) : plain(field, own[field])}</strong
          >
          {#if formula}<span class="text-soft text-xs"> {w.value.formula}: <code>{formula}</code></span>{/if}
          {#if worked}{#each worked.displaced as d (d.from)}<span class="text-soft text-xs">
                {w.value.in(d.display ?? shownJson(d.value, fieldOf(field)), nameAt(d.from))}</span
              >{/each}
            <span class="sr-only">{w.value.from(nameAt(worked.from))}</span>{/if}
          {#each findings as f (f.code)}<span class="block text-xs font-semibold {f.blocks ? 'text-rust' : 'text-ochre'}"
              >{text.problem({ pointer: '', code: f.code, detail: f.message })}</span
            >{/each}
        </span>
        {#if worked}<LayerMark {looks} from={worked.from} displaced={worked.displaced.map((d) => d.from)} />{/if}
      </button>
    </li>
  {/each}
</ul>
{#if mayEdit}
  {#if adding}
    <div class="max-w-80 pt-3">
      <Picker
        id="add-value"
        label={w.value.field}
        value={chosen}
        {choices}
        onchange={(field) => {
          if (!field) return;
          chosen = field;
          if (!offered.find((o) => o.field.key === field)?.rowKey) take(field);
        }}
      />
      {#if about}
        <FieldInput id="add-row" field={about} value={row} onchange={(v) => (row = v)} />
        <Button disabled={row.trim() === ''} onclick={() => take(addressIn(chosen, row.trim()))}>{w.value.add}</Button>
      {/if}
    </div>
  {:else}
    <p class="pt-3"><Button key="a" onclick={add}>{w.value.add}</Button></p>
  {/if}
{/if}
