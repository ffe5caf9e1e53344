<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Chips from '$lib/ui/Chips.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { nameOf, type Approval, type Field } from './configuration';
  import FormulaInput from './FormulaInput.svelte';
  import { words } from './words';

  /** One approval: about which fields, under which condition, and who is asked, one after the other. */
  interface Props {
    approval: Approval;
    at: number;
    fields: Field[];
    server: Api['FieldsResponse'];
    edit: (change: Partial<Approval>) => void;
    remove: () => void;
  }
  let { approval, at, fields, server, edit, remove }: Props = $props();
  const w = $derived(words().approvals);
  let choosing = $state(false);
  // What the people are called who were chosen here; of others the record says it.
  let called = $state<Record<string, string>>({});
  const name = (by: string) =>
    by === 'manager' || by === 'manager2'
      ? w.choices[by]
      : by.startsWith('role:')
        ? w.role(server.roleLabels[by.slice(5)]?.[text.language] ?? by.slice(5))
        : (called[by] ?? w.person);
  const whole = $derived(fields.filter((f) => f.type !== 'computed'));
  const choices = $derived([
    { value: 'manager', label: w.choices.manager },
    { value: 'manager2', label: w.choices.manager2 },
    ...server.roles.map((r) => ({ value: `role:${r}`, label: name(`role:${r}`) })),
    { value: 'person', label: w.choices.person }
  ]);
  const label = (language: 'en' | 'de', value: string) =>
    edit({ label: Object.fromEntries(Object.entries({ ...approval.label, [language]: value }).filter(([, v]) => v !== '')) });
</script>

<section
  class="border-rule grid gap-x-5 gap-y-1 border-t pt-3 pb-2 md:grid-cols-4"
  aria-label={approval.label?.[text.language] ?? approval.id}
>
  <TextField
    id="approval-{at}-en"
    label={w.name}
    value={approval.label?.en ?? ''}
    maxlength={80}
    onchange={(e) => label('en', e.currentTarget.value.trim())}
  />
  <TextField
    id="approval-{at}-de"
    label={w.nameDe}
    value={approval.label?.de ?? ''}
    maxlength={80}
    onchange={(e) => label('de', e.currentTarget.value.trim())}
  />
  <div class="md:col-span-2">
    <FormulaInput
      id="approval-{at}-when"
      label={w.when}
      note={w.whenNote}
      value={approval.when ?? ''}
      fields={[{ key: 'old', type: 'text' }, { key: 'new', type: 'text' }, ...fields]}
      functions={server.functions}
      onchange={(v) => edit({ when: v.trim() || undefined })}
    />
  </div>
  <div class="md:col-span-2">
    <Picker
      id="approval-{at}-field"
      label={w.fields}
      value=""
      choices={whole.filter((f) => !approval.fields.includes(f.key)).map((f) => ({ value: f.key, label: nameOf(f, text.language) }))}
      note={w.addField}
      onchange={(v) => v && edit({ fields: [...approval.fields, v] })}
    />
    <Chips
      label={w.fields}
      chosen={approval.fields.map((key) => ({ value: key, label: nameOf(fields.find((f) => f.key === key) ?? { key }, text.language) }))}
      takeAway={(key) => w.takeAway(key)}
      ontake={(key) => edit({ fields: approval.fields.filter((f) => f !== key) })}
    />
  </div>
  <div class="md:col-span-2">
    {#if choosing}
      <PersonPicker
        id="approval-{at}-person"
        label={w.person}
        value=""
        shown=""
        onchange={(v, known) => {
          choosing = false;
          if (!v) return;
          called[`person:${v}`] = known;
          edit({ by: [...approval.by, `person:${v}`] });
        }}
      />
    {:else}
      <Picker
        id="approval-{at}-by"
        label={w.by}
        value=""
        choices={choices.filter((c) => !approval.by.includes(c.value))}
        note={w.addBy}
        onchange={(v) => (v === 'person' ? (choosing = true) : v && edit({ by: [...approval.by, v] }))}
      />
    {/if}
    <Chips
      label={w.by}
      chosen={approval.by.map((by, i) => ({ value: by, label: `${i + 1}. ${name(by)}` }))}
      takeAway={(by) => w.takeAway(name(by))}
      ontake={(by) => edit({ by: approval.by.filter((b) => b !== by) })}
    />
  </div>
  <p class="md:col-span-4"><Button look="danger" onclick={remove}>{w.remove}</Button></p>
</section>
