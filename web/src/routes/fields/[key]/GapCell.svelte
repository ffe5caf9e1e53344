<script lang="ts">
  import { ApiProblem, type Api } from '$lib/api/client';
  import { give, offered } from '$lib/record/files';
  import { failed } from '$lib/ui/toast';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import Select from '$lib/lists/parts/Select.svelte';
  import UnlabelledInput from '$lib/lists/parts/UnlabelledInput.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import { createMutation } from '@tanstack/svelte-query';
  import { words } from '$lib/record/words';

  /** One cell of the grid: typed in, copied from above, pasted into; saved when it is left. */
  interface Props {
    id: string;
    field: Api['FieldResponse'];
    label: string;
    entries: Api['ListOption'][];
    value: string;
    note: string;
    error?: string;
    oninput: (value: string) => void;
    onleave: () => void;
    oncopy: () => void;
    onpaste: (column: string[]) => void;
    onmove: (by: number) => void;
  }
  let { id, field, label, entries, value, note, error, oninput, onleave, oncopy, onpaste, onmove }: Props = $props();
  /** A file is saved as soon as it is given; which one it was is said beside it. */
  let given = $state('');
  let refused = $state<string>();
  const taking = createMutation(() => ({
    mutationFn: async (file: File) => {
      const stored = await give(file, field.key);
      given = stored.name;
      oninput(stored.id);
      onleave();
    },
    onError: (e) => {
      refused = e instanceof ApiProblem ? (text.problem(e.errors[0]) ?? text.failure(e)) : undefined;
      if (!refused) failed(text.failure(e));
    }
  }));
  function take(file: File | undefined) {
    if (!file) return;
    refused = undefined;
    taking.mutate(file);
  }
  const choices = $derived(
    field.type === 'yesNo'
      ? [
          { value: 'yes', label: text.t.common.yes },
          { value: 'no', label: text.t.common.no }
        ]
      : field.options
        ? field.options.filter((o) => !o.retired).map((o) => ({ value: o.value, label: o.label[text.language] }))
        : field.list
          ? entries.map((o) => ({ value: o.code, label: named(o) }))
          : undefined
  );
</script>

<!-- svelte-ignore a11y_no_static_element_interactions (the keys are the cell's, wherever in it the focus is) -->
<div
  onkeydown={(e) => {
    if (e.ctrlKey && e.key === 'd') {
      e.preventDefault();
      oncopy();
    } else if (e.key === 'Enter' && !choices) {
      e.preventDefault();
      onmove(e.shiftKey ? -1 : 1);
    }
  }}
  onpaste={(e) => {
    const column = (e.clipboardData?.getData('text/plain') ?? '').replace(/\r?\n$/, '').split(/\r?\n/);
    if (column.length < 2) return;
    e.preventDefault();
    onpaste(column.map((line) => line.split('\t')[0]!));
  }}
  onfocusout={(e) => {
    if (!e.currentTarget.contains(e.relatedTarget as Node)) onleave();
  }}
>
  {#if choices}
    <Select {label} {value} choices={[{ value: '', label: '' }, ...choices]} onchange={oninput} />
  {:else if field.type === 'date'}
    <DateField {id} {label} value={value || null} onchange={(v) => oninput(v ?? '')} />
  {:else if field.type === 'file'}
    <label class="link inline-block cursor-pointer py-1 text-xs focus-within:outline-2">
      {taking.isPending ? text.t.common.sending : given || words().choose}
      <input
        {id}
        type="file"
        class="sr-only"
        aria-label={label}
        disabled={taking.isPending}
        accept={offered(field.takes?.groups)}
        onchange={(e) => void take(e.currentTarget.files?.[0])}
      />
    </label>
  {:else if field.type === 'person'}
    <PersonPicker {id} {label} {value} shown="" onchange={oninput} />
  {:else}
    <UnlabelledInput
      {id}
      {label}
      {value}
      maxlength={300}
      aria-invalid={error ? true : undefined}
      oninput={(e) => oninput(e.currentTarget.value)}
    />
  {/if}
  <p class="min-h-4 text-xs {(refused ?? error) ? 'text-rust font-semibold' : 'text-sea'}" role={(refused ?? error) ? 'alert' : undefined}>
    {refused ?? error ?? note}
  </p>
</div>
