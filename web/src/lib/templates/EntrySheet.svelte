<script lang="ts">
  import { decimal } from '$lib/text/decimal';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import Line from '$lib/ui/Line.svelte';
  import Markdown from '$lib/ui/Markdown.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { entryOf, type ListName } from './spec';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** An item, document, certificate, second job or message of a template. */
  interface Props {
    editing: TemplateEditing;
    list: ListName;
    key: string;
    mayEdit: boolean;
    onclose: () => void;
  }
  let { editing, list, key, mayEdit, onclose }: Props = $props();
  const w = $derived(words());
  const properties: Record<ListName, string[]> = {
    tasks: [],
    items: ['quantity', 'note'],
    documents: ['required', 'note'],
    certificates: ['need', 'note'],
    secondJobs: ['rate', 'note'],
    welcome: ['subject', 'days', 'text']
  };
  const worked = $derived(editing.example?.entries.find((e) => e.list === list && e.key === key));
  const said = $derived(entryOf(editing.spec, list, key));
  const isOwn = $derived(editing.isOwn(list, key));
  const held = $derived({
    ...Object.fromEntries(Object.entries(worked?.properties ?? {}).map(([name, p]) => [name, p.value as unknown])),
    ...((said?.properties ?? {}) as Record<string, unknown>)
  });
  const label = $derived<Record<string, string>>({
    quantity: w.entry.quantity,
    note: w.entry.note,
    need: w.entry.need,
    rate: w.entry.rate,
    subject: w.entry.subject,
    text: w.entry.text,
    days: w.entry.days,
    required: w.entry.required
  });
  let typing = $state<Record<string, string>>({});
  const typed = $derived({ ...Object.fromEntries(Object.entries(held).map(([k, v]) => [k, String(v ?? '')])), ...typing } as Record<
    string,
    string
  >);
  const error = (property: string) => {
    const f = (editing.example?.findings ?? []).find((f) => f.part === list && f.key === key && f.property === property);
    return f ? text.problem({ pointer: '', code: f.code, detail: f.message }) : undefined;
  };
  function set(property: string, value: string) {
    typing = { ...typing, [property]: value };
    const isNumber = ['quantity', 'rate', 'days'].includes(property);
    editing.setProperty(list, key, property, value.trim() === '' ? undefined : isNumber ? (decimal(value) ?? value) : value);
  }
</script>

<FooterSheet label={worked?.name ?? key}>
  <p class="min-w-0 flex-1"><strong>{worked?.name ?? (typed.subject || key)}</strong></p>
  {#if mayEdit}
    {#if isOwn}
      <Button
        look="danger"
        onclick={() => {
          editing.remove(list, key);
          onclose();
        }}>{w.value.takeAway}</Button
      >
    {:else}
      {#if said}<Button onclick={() => editing.remove(list, key)}>{w.task.reset}</Button>{/if}
      <Button
        look="danger"
        onclick={() => {
          editing.setEntry(list, key, { drop: true });
          onclose();
        }}>{w.task.drop}</Button
      >
    {/if}
    <div class="grid w-full grid-cols-1 gap-x-5 sm:grid-cols-2 lg:grid-cols-4">
      {#each properties[list] as property (property)}
        {#if property === 'need' || property === 'required'}
          <Picker
            id="entry-{property}"
            label={label[property]!}
            value={typed[property] ?? ''}
            choices={property === 'need'
              ? [
                  { value: 'essential', label: w.entry.essential },
                  { value: 'desirable', label: w.entry.desirable }
                ]
              : [
                  { value: 'true', label: w.value.yes },
                  { value: 'false', label: w.value.no }
                ]}
            error={error(property)}
            onchange={(v) => editing.setProperty(list, key, property, v === '' ? undefined : property === 'required' ? v === 'true' : v)}
          />
        {:else if property === 'text'}
          <div class="sm:col-span-2 lg:col-span-4">
            <Line id="entry-text" label={label.text!} note={w.task.instructionsNote} error={error('text')}>
              <textarea
                id="entry-text"
                value={typed.text ?? ''}
                rows="4"
                maxlength="8000"
                dir="auto"
                class="field-sizing-content max-h-56 w-full bg-transparent px-0.5 py-1 outline-none"
                aria-describedby="entry-text-note"
                oninput={(e) => set('text', e.currentTarget.value)}></textarea>
            </Line>
            <div class="border-rule border-l-2 pl-3"><Markdown text={typed.text ?? ''} /></div>
          </div>
        {:else}
          <div class={property === 'note' || property === 'subject' ? 'sm:col-span-2' : ''}>
            <TextField
              id="entry-{property}"
              label={label[property]!}
              value={typed[property] ?? ''}
              maxlength={500}
              inputmode={['quantity', 'rate', 'days'].includes(property) ? 'decimal' : undefined}
              error={error(property)}
              oninput={(e) => set(property, e.currentTarget.value)}
            />
          </div>
        {/if}
      {/each}
    </div>
  {/if}
</FooterSheet>
