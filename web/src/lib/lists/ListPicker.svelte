<script lang="ts">
  import { api, data, type Api } from '$lib/api/client';
  import { named } from '$lib/text/named';
  import { session } from '$lib/api/session.svelte';
  import { fits } from '$lib/text/fits';
  import Picker from '$lib/ui/Picker.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import AddEntry from './AddEntry.svelte';
  import { optionsQuery, listKeys } from './queries';
  import { recent } from './recent.svelte';

  /** Chooses an entry of a list by any part of its code or name in any language, recently used ones first; who may can add one. */
  interface Props {
    id: string;
    label: string;
    list: string;
    value: string;
    /** What to show for a value that is not among the options. */
    shown?: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    /** Codes that are not offered. */
    without?: string[];
    quiet?: boolean;
    onchange?: (value: string) => void;
  }
  let { id, label, list, value = $bindable(), shown, note, noteTone, error, without = [], quiet = false, onchange }: Props = $props();
  let typed = $state('');
  let adding = $state<string>();
  const options = optionsQuery();
  const long = $derived(options.data?.more.includes(list) ?? false);
  const asked = settled(() => typed);
  const found = createQuery(() => ({
    queryKey: listKeys.find(list, asked.current),
    queryFn: ({ signal }) => data(api.GET('/api/options/{list}', { params: { path: { list }, query: { find: asked.current } }, signal })),
    enabled: long,
    placeholderData: keepPreviousData
  }));
  // Whoever presses Enter before the answer is there chooses nothing else.
  const isAnswered = $derived(asked.current === typed && !found.isPlaceholderData);
  const answered = $derived((found.data ?? []).filter((o) => isAnswered || fits(`${o.name} ${o.nameDe ?? ''} ${o.code}`, typed)));
  const entries = $derived(long ? answered : (options.data?.options ?? []).filter((o) => o.list === list));
  const choices = $derived.by(() => {
    const last = recent.of(list);
    const rank = (o: Api['ListOption']) => (last.includes(o.code) ? last.indexOf(o.code) : last.length);
    return entries
      .filter((o) => (!o.retired || o.code === value) && !without.includes(o.code))
      .map((o) => ({ o, rank: rank(o) }))
      .sort((a, b) => a.rank - b.rank)
      .map(({ o }) => ({ value: o.code, label: named(o), detail: o.code, also: o.nameDe ? `${o.name} ${o.nameDe}` : o.name }));
  });

  function take(code: string) {
    value = code;
    if (code) recent.use(list, code);
    onchange?.(code);
  }
</script>

<Picker
  {id}
  {label}
  {value}
  {choices}
  {shown}
  {note}
  {noteTone}
  {error}
  {quiet}
  onsearch={long ? (t) => (typed = t) : undefined}
  onadd={session.may('edit list') && list !== 'people' ? (name) => (adding = name) : undefined}
  onchange={take}
/>
{#if adding !== undefined}
  <AddEntry
    {list}
    name={adding}
    onclose={() => {
      adding = undefined;
      document.getElementById(id)?.focus();
    }}
    onadded={(entry) => take(entry.code)}
  />
{/if}
