<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import { done, failed } from '$lib/ui/toast';
  import type { EntryEditing } from './editing.svelte';
  import type { Holiday } from './parts/holiday';
  import { words } from './words';

  /** Takes holidays from an iCalendar file into the calendar being edited, and gives them out as one. */
  let { editing }: { editing: EntryEditing } = $props();
  const w = $derived(words());
  let input = $state<HTMLInputElement>();

  async function read(file: File | undefined) {
    if (!file) return;
    try {
      const holidays = await data(api.POST('/api/lists/calendars/read-ics', { body: { text: await file.text() } }));
      const mine = (editing.values.holidays ?? []) as Holiday[];
      const fresh = holidays.filter((h) => !mine.some((m) => m.on === h.on));
      editing.set('holidays', [...mine, ...fresh]);
      done(w.holidays.readDone(fresh.length));
    } catch (e) {
      failed(text.failure(e));
    } finally {
      input!.value = '';
    }
  }
</script>

{#if session.may('edit list')}
  <input
    bind:this={input}
    type="file"
    accept=".ics,text/calendar"
    class="sr-only"
    tabindex="-1"
    aria-label={w.holidays.read}
    onchange={(e) => void read(e.currentTarget.files?.[0])}
  />
  <Button onclick={() => input!.click()}>{w.holidays.read}</Button>
{/if}
{#if editing.there}
  <a
    class="link self-center text-xs font-semibold"
    download
    href="/api/lists/calendars/entries/{encodeURIComponent(editing.there.code)}/calendar.ics">{w.holidays.write}</a
  >
{/if}
