<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { dayNumber, isoDay } from '$lib/text/dates';
  import { text } from '$lib/text/index.svelte';

  /** Arrivals to take along: the week to print, all of them as a sheet. */
  let { occasion, today }: { occasion: Api['Occasion']; today: string } = $props();
  const t = $derived(text.t.arrivals.takeAlong);
  const nextWeek = $derived(isoDay(dayNumber(today) + 7));
</script>

<details class="sm:relative">
  <summary class="link cursor-pointer list-none">{t.title}</summary>
  <ul class="bg-paper border-ink mt-1 w-56 max-w-full border p-2 leading-7 sm:absolute sm:right-0 sm:z-20">
    <li><a class="link" target="_blank" href="/api/arrivals/week.pdf?occasion={occasion}&on={today}">{t.thisWeek}</a></li>
    <li><a class="link" target="_blank" href="/api/arrivals/week.pdf?occasion={occasion}&on={nextWeek}">{t.nextWeek}</a></li>
    <li><a class="link" href="/api/arrivals/sheet.xlsx?occasion={occasion}" download>{t.sheet}</a></li>
  </ul>
</details>
