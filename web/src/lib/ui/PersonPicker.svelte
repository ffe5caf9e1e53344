<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { fits } from '$lib/text/fits';
  import Picker from './Picker.svelte';
  import { settled } from './settled.svelte';
  import { peopleKeys } from '$lib/people/queries';

  /** Chooses a person among all of them, found by the server as one types. */
  interface Props {
    id: string;
    label: string;
    value: string;
    shown: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    /** Given the person and what they are called. */
    onchange: (value: string, name: string) => void;
  }
  let { id, label, value, shown, note, noteTone, error, onchange }: Props = $props();
  let typed = $state('');
  let picked = $state<{ value: string; label: string }>();

  const asked = settled(() => typed);
  const found = createQuery(() => ({
    queryKey: peopleKeys.find(asked.current),
    // Whoever is not shown the list of people names one of those who can sign in.
    queryFn: async ({ signal }) =>
      session.may('see people')
        ? (await data(api.GET('/api/people', { params: { query: { q: asked.current } }, signal }))).people.map((p) => ({
            employmentId: p.employmentId,
            name: `${p.givenName} ${p.familyName}`.trim(),
            job: p.job
          }))
        : (await data(api.GET('/api/people/colleagues', { params: { query: { q: asked.current } }, signal }))).map((c) => ({
            ...c,
            job: null
          })),
    enabled: asked.current !== '',
    placeholderData: keepPreviousData
  }));
  // Whoever presses Enter before the answer is there chooses nobody else.
  const isAnswered = $derived(asked.current === typed && !found.isPlaceholderData);
  const choices = $derived(
    (typed === '' ? [] : (found.data ?? []))
      .filter((p) => isAnswered || fits(p.name, typed))
      .slice(0, 12)
      .map((p) => ({ value: p.employmentId, label: p.name, detail: p.job ?? undefined }))
  );
</script>

<Picker
  {id}
  {label}
  {value}
  {choices}
  shown={picked && picked.value === value ? picked.label : shown}
  {note}
  {noteTone}
  {error}
  onsearch={(t) => (typed = t)}
  onchange={(v) => {
    picked = choices.find((c) => c.value === v);
    onchange(v, picked?.label ?? '');
  }}
/>
