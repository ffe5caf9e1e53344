<script lang="ts">
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import type { RevisionForm } from './revisionForm';
  import { words } from './words';

  /** Whose pay rises, by what rule, and from when. */
  interface Props {
    form: RevisionForm;
    /** What is wrong with a part of it. */
    problem: (key: keyof RevisionForm) => string | undefined;
  }
  let { form = $bindable(), problem }: Props = $props();
  const w = $derived(words());
  const group = [
    ['grade', 'grades'],
    ['job', 'jobs'],
    ['site', 'sites'],
    ['payGroup', 'payGroups']
  ] as const;
</script>

<div class="grid gap-x-10 lg:grid-cols-2">
  <fieldset>
    <legend class="pb-1 font-semibold">{w.whose}</legend>
    <div class="grid grid-cols-2 gap-x-5">
      {#each group as [key, list] (key)}
        <ListPicker
          id="revision-{key}"
          label={w[key]}
          {list}
          bind:value={form[key]}
          note={form[key] ? '' : w.whichever}
          error={problem(key)}
        />
      {/each}
    </div>
  </fieldset>
  <fieldset>
    <legend class="pb-1 font-semibold">{w.rule}</legend>
    <div class="grid grid-cols-2 gap-x-5">
      <TextField
        id="revision-percent"
        label={w.percent}
        bind:value={form.percent}
        inputmode="decimal"
        maxlength={10}
        error={problem('percent')}
      />
      <TextField
        id="revision-at-least"
        label={w.atLeast}
        bind:value={form.atLeast}
        inputmode="decimal"
        maxlength={10}
        error={problem('atLeast')}
      />
      <DateField id="revision-from" label={w.from} bind:value={form.from} error={problem('from')} />
      <label class="flex min-h-8 items-center gap-2 self-center">
        <input type="checkbox" id="revision-up-to-band" bind:checked={form.upToBand} />{w.upToBand}
      </label>
    </div>
  </fieldset>
</div>
