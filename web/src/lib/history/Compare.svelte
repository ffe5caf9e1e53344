<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import { createQuery, keepPreviousData } from '@tanstack/svelte-query';
  import { shown } from './show';
  import { words } from './words';

  /** Two states of a record side by side, with only what differs: each is what was true on a day, as known on a day. */
  let { id, start }: { id: string; start: string } = $props();
  const w = $derived(words());
  let on = $state<string | null>(null);
  let known = $state<string | null>(null);
  let withDay = $state<string | null>(session.today);
  let withKnown = $state<string | null>(null);
  const first = $derived(on ?? start);
  const compared = createQuery(() => ({
    queryKey: ['record', id, 'compare', first, known, withDay, withKnown],
    queryFn: () =>
      data(
        api.GET('/api/records/{id}/compare', {
          params: {
            path: { id },
            query: { on: first, known: known ?? undefined, with: withDay ?? first, withKnown: withKnown ?? undefined }
          }
        })
      ),
    placeholderData: keepPreviousData
  }));
</script>

<div class="grid grid-cols-2 gap-x-5 md:grid-cols-4">
  <DateField id="compare-on" label={w.on} value={first} onchange={(v) => (on = v)} />
  <DateField id="compare-known" label={w.known} bind:value={known} note={w.knownNow} />
  <DateField id="compare-with" label={w.with} bind:value={withDay} />
  <DateField id="compare-with-known" label={w.known} bind:value={withKnown} note={w.knownNow} />
</div>
{#if compared.error}<p role="alert" class="text-rust">{text.failure(compared.error)}</p>{/if}
{#if compared.data?.length === 0}<p class="text-soft py-2">{w.same}</p>{/if}
{#if compared.data && compared.data.length > 0}
  <table class="w-full text-left">
    <thead class="text-soft border-ink border-b text-xs">
      <tr
        ><th class="w-1/3 py-1 font-normal">{w.field}</th><th class="w-1/3 font-normal">{text.day(first)}</th><th class="font-normal"
          >{text.day(withDay ?? first)}</th
        ></tr
      >
    </thead>
    <tbody>
      {#each compared.data as row (row.field)}
        <tr class="border-rule border-b">
          <th scope="row" class="py-1 pr-3 font-semibold">{row.label[text.language]}</th>
          <td class="pr-3"><bdi>{shown(row.before, w.nothing)}</bdi></td>
          <td><bdi>{shown(row.after, w.nothing)}</bdi></td>
        </tr>
      {/each}
    </tbody>
  </table>
{/if}
