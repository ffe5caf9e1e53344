<script lang="ts">
  import { words } from '$lib/hires/words';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import { draft } from './draft.svelte';

  /** The colleague a hire is to be like, and which parts of theirs to copy. What is personal never is. */
  const t = $derived(words().opening);
  const parts = ['job', 'pay', 'clock', 'checklist', 'items'];
  const chosen = $derived(draft.like?.parts ?? []);
  const toggle = (part: string) =>
    (draft.like = {
      id: '',
      name: '',
      ...draft.like,
      parts: chosen.includes(part) ? chosen.filter((p) => p !== part) : [...chosen, part]
    });
</script>

<div class="mb-2 grid items-end gap-x-5 sm:grid-cols-[16rem_1fr]">
  <PersonPicker
    id="new-like"
    label={t.colleague}
    value={draft.like?.id ?? ''}
    shown={draft.like?.name ?? ''}
    onchange={(id, name) => (draft.like = { id, name, parts: draft.like?.parts.length ? draft.like.parts : parts })}
  />
  <fieldset class="flex flex-wrap gap-x-5 gap-y-1 pb-5">
    <legend class="sr-only">{t.copy}</legend>
    {#each parts as part (part)}
      <label class="flex items-center gap-1.5"
        ><input type="checkbox" checked={chosen.includes(part)} onchange={() => toggle(part)} />{t.parts[part]}</label
      >
    {/each}
  </fieldset>
</div>
