<script lang="ts">
  import { api, data } from '$lib/api/client';
  import Picker from '$lib/ui/Picker.svelte';
  import { settled } from '$lib/ui/settled.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { peopleKeys } from '$lib/people/queries';

  /** Chooses one of the firm's people; the value is the employee number. */
  let { id, label, value, onchange }: { id: string; label: string; value: string; onchange: (value: string) => void } = $props();
  let typed = $state('');
  const find = (q: string) => data(api.GET('/api/people', { params: { query: { q } } }));
  const asked = settled(() => typed);
  const found = createQuery(() => ({
    queryKey: peopleKeys.byNumber(asked.current),
    queryFn: () => find(asked.current),
    placeholderData: keepPreviousData
  }));
  const chosen = createQuery(() => ({ queryKey: peopleKeys.byNumber(value), queryFn: () => find(value), enabled: value !== '' }));
  const name = $derived.by(() => {
    const person = chosen.data?.people.find((p) => p.number === value);
    return person ? `${person.givenName} ${person.familyName}` : value;
  });
</script>

<Picker
  {id}
  {label}
  quiet
  {value}
  shown={name}
  choices={(found.data?.people ?? []).map((p) => ({ value: p.number, label: `${p.givenName} ${p.familyName}`, detail: p.job ?? p.number }))}
  onsearch={(t) => (typed = t)}
  {onchange}
/>
