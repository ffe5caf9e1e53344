<script lang="ts">
  import type { Api } from '$lib/api/client';
  import Picker from '$lib/ui/Picker.svelte';
  import type { Field } from './configuration';
  import { words } from './words';

  /** When a field must be filled: never, always, or from a stage on. */
  interface Props {
    id: string;
    field: Field;
    stages: Api['FieldStage'][];
    error: string | undefined;
    edit: (change: Partial<Field>) => void;
  }
  let { id, field, stages, error, edit }: Props = $props();
  const value = $derived(typeof field.required === 'object' ? `from:${field.required.from}` : (field.required ?? 'never'));
</script>

<Picker
  {id}
  label={words().sheet.required}
  {value}
  choices={[
    { value: 'never', label: words().never },
    { value: 'always', label: words().always },
    ...stages.map((s) => ({ value: `from:${s.key}`, label: words().from(s.name) }))
  ]}
  {error}
  onchange={(v) => v && edit({ required: v === 'never' ? undefined : v === 'always' ? 'always' : { from: v.slice(5) } })}
/>
