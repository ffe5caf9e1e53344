<script lang="ts">
  import { page } from '$app/state';
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { occasionWords } from '$lib/occasions/words';
  import { text } from '$lib/text/index.svelte';

  /** Who this is, and the parts of their hire. */
  interface Props {
    employmentId: string;
    givenName: string;
    familyName: string;
    job: string | null;
    kind: string | null;
    site: string | null;
    start: string;
    number: string;
    filled: number;
    of: number;
    /** The hire under way, or the one by which they settled; without one there is only a record. */
    hire?: { id: string; done: number; of: number; settled: boolean };
    /** Their other checklists: of changes of job, and of a leaving. */
    checklists?: Api['ChecklistLink'][];
    /** What the checklist on view is run for, where it is one of those: the start is its day then. */
    occasion?: Api['Occasion'];
    /** The address of a picture of them. */
    photo?: string;
  }
  let {
    employmentId,
    givenName,
    familyName,
    job,
    kind,
    site,
    start,
    number,
    filled,
    of,
    hire,
    checklists = [],
    occasion = 'arrival',
    photo
  }: Props = $props();
  let unseen = $state('');
  const t = $derived(text.t.hire);
  const o = $derived(occasionWords(occasion));
  const later = $derived(
    session.may('see hire')
      ? checklists.map((c) => ({ href: `/hires/${c.id}/checklist`, label: `${occasionWords(c.occasion).checklist} ${c.done}/${c.of}` }))
      : []
  );
  const tabs = $derived(
    hire && !hire.settled && occasion === 'arrival'
      ? [
          ...(session.may('see record') ? [{ href: `/hires/${hire.id}/record`, label: `${t.record} ${filled}/${of}` }] : []),
          { href: `/hires/${hire.id}/checklist`, label: `${o.checklist} ${hire.done}/${hire.of}` },
          ...later,
          ...(session.may('see record') ? [{ href: `/hires/${hire.id}/history`, label: t.history }] : [])
        ]
      : [
          ...(session.may('see record') ? [{ href: `/people/${employmentId}`, label: `${t.record} ${filled}/${of}` }] : []),
          ...(hire ? [{ href: `/hires/${hire.id}/checklist`, label: `${o.checklist} ${hire.done}/${hire.of}` }] : []),
          ...later,
          ...(session.may('see record') ? [{ href: `/people/${employmentId}/history`, label: t.history }] : [])
        ]
  );
</script>

<div class="flex flex-wrap items-end justify-between gap-x-8 gap-y-1 pt-4">
  <div class="flex min-w-0 flex-wrap items-baseline gap-x-4">
    {#if photo && photo !== unseen}
      <img src={photo} alt="" class="border-rule h-12 w-10 shrink-0 self-center border object-cover" onerror={() => (unseen = photo)} />
    {/if}
    <h1 class="text-2xl"><bdi>{`${givenName} ${familyName}`.trim()}</bdi></h1>
    <p class="text-soft text-xs">
      {job ?? ''}{kind ? `, ${kind}` : ''}
      {site ? `· ${site}` : ''} · {start > session.today ? o.coming : o.past}
      <strong class="text-ink">{text.day(start)}</strong>, {occasion !== 'arrival'
        ? text.distance(start)
        : hire && !hire.settled
          ? text.untilStart(start)
          : `${t.formerly} ${number}`}
    </p>
  </div>
  {#if tabs.length > 0}
    <nav aria-label={t.tabs} class="flex gap-x-6">
      {#each tabs as tab (tab.href)}
        {@const here = page.url.pathname === tab.href}
        <a
          href={tab.href}
          aria-current={here ? 'page' : undefined}
          class="border-b-4 py-1 font-semibold {here ? 'border-sea' : 'text-soft hover:text-ink border-transparent'}">{tab.label}</a
        >
      {/each}
    </nav>
  {/if}
</div>
