<script lang="ts">
  import Parts from '$lib/admin/Parts.svelte';
  import { words as adminWords } from '$lib/admin/words';
  import { api, data } from '$lib/api/client';
  import MailTextForm from '$lib/mail/MailTextForm.svelte';
  import { mailKeys } from '$lib/mail/queries';
  import { words } from '$lib/mail/words';
  import { text } from '$lib/text/index.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';

  /** What does Fid write to people, and in whose words? */
  const w = $derived(words().texts);
  const kinds = createQuery(() => ({ queryKey: mailKeys.texts, queryFn: () => data(api.GET('/api/mail-texts')) }));
  let chosen = $state({ kind: '', language: text.language as string });
  const kind = $derived(kinds.data?.find((k) => k.key === chosen.kind) ?? kinds.data?.[0]);
  const one = $derived(kind?.languages.find((l) => l.language === chosen.language) ?? kind?.languages[0]);
  const own = $derived((kinds.data ?? []).flatMap((k) => k.languages).filter((l) => l.version !== null).length);
</script>

<svelte:head><title>{adminWords().places.texts} · Fid</title></svelte:head>

{#if !kinds.data || !kind || !one}
  <Waiting error={kinds.error} retry={() => kinds.refetch()} />
{:else}
  <div class="page pb-10">
    <div class="pt-5 pb-1">
      <h1 class="text-2xl leading-tight">{w.news(own)}</h1>
    </div>
    <div class="py-2"><Parts /></div>
    <div class="flex flex-wrap gap-x-6 gap-y-1 py-1">
      <label class="flex min-w-0 items-center gap-2"
        ><span class="text-soft text-xs">{w.kind}</span>
        <select class="bg-paper border-ink min-h-8 border-b" bind:value={() => kind.key, (key) => (chosen.kind = key)}>
          {#each kinds.data as k (k.key)}<option value={k.key}>{k.label[text.language]}</option>{/each}
        </select></label
      >
      <label class="flex min-w-0 items-center gap-2"
        ><span class="text-soft text-xs">{w.language}</span>
        <select class="bg-paper border-ink min-h-8 border-b" bind:value={() => one.language, (l) => (chosen.language = l)}>
          {#each kind.languages as l (l.language)}<option value={l.language}>{w.languages[l.language]}</option>{/each}
        </select></label
      >
    </div>
    <p class="text-soft">{kind.about[text.language]}</p>
    {#key `${kind.key} ${one.language}`}
      <MailTextForm {kind} {one} />
    {/key}
  </div>
{/if}
