<script lang="ts">
  import FormulaInput from '$lib/fields/FormulaInput.svelte';
  import { text } from '$lib/text/index.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { editingQuery } from './queries';
  import { withoutSetting, withSetting, type Setting } from './settings';
  import { words } from './words';

  /** Which fields of the record does this task set by itself, and to what? */
  interface Props {
    settings: Setting[];
    note?: (property: string) => string | undefined;
    error?: (property: string) => string | undefined;
    onchange: (property: string, value: unknown) => void;
  }
  let { settings, note = () => undefined, error = () => undefined, onchange }: Props = $props();
  const w = $derived(words().settings);
  const editing = editingQuery();
  const offered = $derived((editing.data?.fields ?? []).map((o) => o.field));
  const settable = $derived(offered.filter((f) => f.type !== 'rows' && f.type !== 'computed' && f.type !== 'file' && !f.sensitive));
  const labelOf = (key: string) => offered.find((f) => f.key === key)?.label[text.language] ?? key;
  const formulaFields = $derived(offered.map((f) => ({ key: f.key, label: f.label, type: f.type })));
</script>

<div class="sm:col-span-2 lg:col-span-4">
  {#each settings as setting (setting.field)}
    <div class="flex items-start gap-3">
      <div class="min-w-0 grow">
        <FormulaInput
          id="task-set-{setting.field}"
          label={w.becomes(labelOf(setting.field))}
          value={setting.formula}
          fields={formulaFields}
          functions={editing.data?.functions ?? []}
          onchange={(formula) => onchange('sets', withSetting(settings, setting.field, formula))}
        />
      </div>
      <button
        type="button"
        class="text-soft hover:text-rust min-h-8 pt-5"
        aria-label="{words().task.takeAway}: {labelOf(setting.field)}"
        onclick={() => onchange('sets', withoutSetting(settings, setting.field))}>✕</button
      >
    </div>
  {/each}
  <!-- Anew with every choice, so that it stands empty for the next. -->
  {#key settings.length}
    <Picker
      id="task-sets"
      label={w.add}
      value=""
      choices={settable
        .filter((f) => !settings.some((s) => s.field === f.key))
        .map((f) => ({ value: f.key, label: f.label[text.language] }))}
      note={note('sets') ?? w.note}
      error={error('sets')}
      onchange={(field) => field && onchange('sets', withSetting(settings, field, ''))}
    />
  {/key}
</div>
