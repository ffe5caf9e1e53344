<script lang="ts">
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import LayerMark from './LayerMark.svelte';
  import type { LayerLook } from './layers';
  import { entryOf, keyedBy, keyFrom, type ListName } from './spec';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** The items, documents, certificates, second jobs or messages an example would have. */
  interface Props {
    editing: TemplateEditing;
    list: ListName;
    looks: LayerLook[];
    selected: string | undefined;
    mayEdit: boolean;
    onselect: (key: string | undefined) => void;
  }
  let { editing, list, looks, selected, mayEdit, onselect }: Props = $props();
  const w = $derived(words());
  let adding = $state(false);
  const rows = $derived((editing.example?.entries ?? []).filter((e) => e.list === list));
  const dropped = $derived((editing.example?.dropped ?? []).filter((d) => d.list === list));
  const nameAt = (id: string) => looks.find((l) => l.id === id)?.name ?? id;
  const keys = $derived(keyedBy[list]);
  // Where nothing is said of an entry, its layer is the one edited or not known.
  const layersOf = (entry: (typeof rows)[number]) => {
    const ids = [...new Set(Object.values(entry.properties).flatMap((p) => [p.from, ...p.displaced.map((d) => d.from)]))];
    const top =
      looks.filter((l) => ids.includes(l.id)).at(-1)?.id ??
      looks.find((l) => entryOf(editing.spec, list, entry.key) && l.code === editing.code)?.id ??
      '';
    return { top, below: ids.filter((i) => i !== top) };
  };
  function say(name: string, value: unknown): string {
    const e = w.entry;
    if (name === 'quantity') return Number(value) === 1 ? '' : `${text.number(Number(value))} ×`;
    if (name === 'rate') return text.money(Number(value));
    if (name === 'days') return e.daysBefore(Number(value));
    if (name === 'need') return value === 'essential' ? e.essential : e.desirable;
    if (name === 'required') return value ? e.required : '';
    return name === 'text' || name === 'subject' ? '' : String(value);
  }
  const details = (entry: (typeof rows)[number]) =>
    Object.entries(entry.properties)
      .map(([name, p]) => say(name, p.value))
      .filter(Boolean)
      .join(' · ');

  export function add() {
    if (keys) {
      adding = true;
      requestAnimationFrame(() => document.getElementById('add-entry')?.focus());
      return;
    }
    const key = keyFrom(
      'message',
      rows.map((r) => r.key)
    );
    editing.add(list, [{ key, properties: { subject: '', text: '', days: 7 } as never, drop: false, shared: null }]);
    onselect(key);
  }
</script>

<h2 class="pb-1 text-lg">{w.parts[list]}</h2>
{#if rows.length === 0 && dropped.length === 0}<p class="text-soft py-3">{w.example.nothing}</p>{/if}
<ul>
  {#each rows as entry (entry.key)}
    {@const marks = layersOf(entry)}
    {@const findings = (editing.example?.findings ?? []).filter((f) => f.part === list && f.key === entry.key)}
    <li>
      <button
        type="button"
        class="grid w-full grid-cols-[1fr_auto] items-center gap-x-3 border px-2 py-2 text-left sm:grid-cols-[14rem_1fr_auto] {selected ===
        entry.key
          ? 'border-sea bg-sheet'
          : 'border-b-rule hover:bg-band border-transparent'}"
        aria-pressed={selected === entry.key}
        onclick={() => onselect(entry.key)}
      >
        <strong class={entryOf(editing.spec, list, entry.key) ? '' : 'font-medium'}
          >{entry.name ?? (String(entry.properties.subject?.value ?? '') || entry.key)}</strong
        >
        <span class="text-soft text-xs">
          {details(entry)}
          {#each findings as f (f.code + f.property)}<span class="text-rust block font-semibold"
              >{text.problem({ pointer: '', code: f.code, detail: f.message })}</span
            >{/each}
        </span>
        <LayerMark {looks} from={marks.top} displaced={marks.below} />
      </button>
    </li>
  {/each}
  {#each dropped as d (d.key)}
    <li class="border-b-rule text-soft flex items-center justify-between gap-3 border border-transparent px-2 py-2">
      <span><s>{d.name ?? d.key}</s> <span class="text-xs">{w.task.dropped(nameAt(d.by))}</span></span>
      {#if mayEdit}<button type="button" class="link text-xs" onclick={() => editing.setEntry(list, d.key, { drop: false })}
          >{w.task.bringBack}</button
        >{/if}
    </li>
  {/each}
</ul>
{#if mayEdit}
  {#if adding && keys}
    <div class="max-w-80 pt-3">
      <ListPicker
        id="add-entry"
        label={w.entry.add[list]!}
        list={keys}
        value=""
        without={rows.map((r) => r.key)}
        onchange={(code) => {
          if (!code) return;
          adding = false;
          editing.add(list, [{ key: code, properties: (list === 'items' ? { quantity: 1 } : {}) as never, drop: false, shared: null }]);
          onselect(code);
        }}
      />
    </div>
  {:else}
    <p class="pt-3"><Button key="a" onclick={add}>{w.entry.add[list]}</Button></p>
  {/if}
{/if}
