<script lang="ts">
  import { optionsQuery } from '$lib/lists/queries';
  import { text } from '$lib/text/index.svelte';
  import { named } from '$lib/text/named';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { words } from './words';

  /** Who does a task, or can help: a team, the manager, the buddy, the newcomer, the coordinator, or somebody by name. */
  interface Props {
    id: string;
    label: string;
    value: string;
    shown: string;
    note?: string;
    error?: string;
    /** Whether it can be one of those whom a hire has: a pay run has none. */
    byRole?: boolean;
    onchange: (value: string) => void;
  }
  let { id, label, value, shown, note, error, byRole = true, onchange }: Props = $props();
  const w = $derived(words());
  const options = optionsQuery();
  const isEmpty = (owner: string) => options.data?.emptyTeams.some((t) => owner === `team:${t}`) ?? false;
  let byName = $derived(value.startsWith('person:'));
  const choices = $derived([
    ...(byRole ? ['newcomer', 'manager', 'buddy', 'coordinator'] : []).map((o) => ({ value: o, label: text.owner(o, null) })),
    ...(options.data?.options ?? [])
      .filter((o) => o.list === 'teams' && !o.retired)
      .map((o) => ({ value: `team:${o.code}`, label: named(o), detail: isEmpty(`team:${o.code}`) ? w.owner.nobodyIn : undefined })),
    { value: 'person', label: w.owner.aPerson }
  ]);
</script>

<Picker
  {id}
  {label}
  value={byName ? 'person' : value}
  {choices}
  note={byName ? undefined : isEmpty(value) ? w.owner.nobodyIn : note}
  noteTone={isEmpty(value) ? 'ochre' : 'faint'}
  {error}
  onchange={(v) => {
    byName = v === 'person';
    if (v !== 'person') onchange(v);
  }}
/>
{#if byName}
  <PersonPicker
    id="{id}-person"
    label={w.owner.person}
    value={value.startsWith('person:') ? value.slice(7) : ''}
    {shown}
    {note}
    onchange={(v) => v && onchange(`person:${v}`)}
  />
{/if}
