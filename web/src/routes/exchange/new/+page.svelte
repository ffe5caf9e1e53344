<script lang="ts">
  import { download } from '$lib/factor/download';
  import { goto } from '$app/navigation';
  import { page } from '$app/state';
  import { LARGEST, uploadSheet } from '$lib/exchange/upload';
  import { words } from '$lib/exchange/words';
  import { PEOPLE, rowsOf, targetsQuery } from '$lib/exchange/queries';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createMutation } from '@tanstack/svelte-query';

  const targets = targetsQuery();
  const w = $derived(words());
  let list = $state(page.url.searchParams.get('list') ?? '');
  let over = $state(false);
  let problem = $state('');
  let input = $state<HTMLInputElement>();
  const MB = LARGEST / 1_000_000;

  const sending = createMutation(() => ({
    mutationFn: async ({ name, content }: { name: string; content: Blob }) => {
      const run = await uploadSheet(list, name, content);
      await goto(`/exchange/${run.id}`);
    },
    onError: (e) => {
      problem = e instanceof Error && e.message ? e.message : text.failure(e);
    }
  }));
  function send(name: string, content: Blob) {
    problem = '';
    if (list === '' || sending.isPending) return;
    if (content.size > LARGEST) {
      problem = w.tooLarge(MB);
      return;
    }
    sending.mutate({ name, content });
  }
  const take = (file: File | undefined) => file && void send(file.name, file);
  function paste(event: ClipboardEvent) {
    if (event.target instanceof HTMLInputElement) return;
    const file = event.clipboardData?.files[0];
    const cells = event.clipboardData?.getData('text/plain') ?? '';
    if (file) take(file);
    else if (cells.trim() !== '') void send(w.pasted, new Blob([cells]));
    else return;
    event.preventDefault();
  }
</script>

<svelte:head><title>{w.newTitle} · Fid</title></svelte:head>
<svelte:window onpaste={paste} />

{#if !targets.data}
  <Waiting error={targets.error} retry={() => targets.refetch()} />
{:else}
  <div class="page max-w-3xl pb-8">
    <p class="pt-4 text-xs"><a class="link" href="/exchange">{w.title}</a></p>
    <h1 class="pb-3 text-2xl">{w.newTitle}</h1>
    <Picker
      id="import-list"
      label={w.into}
      bind:value={list}
      choices={targets.data.map((l) => ({ value: l.key, label: l.label[text.language], detail: l.about[text.language] }))}
    />
    {#if list}
      <p class="flex flex-wrap gap-x-6 pb-3 text-xs font-semibold">
        {#if list === PEOPLE}
          <a class="link" download href="/api/people/sheet.xlsx?language={text.language}" onclick={download}>{w.getPeople}</a>
          <a class="link" download href="/api/people/sheet.xlsx?empty=true&language={text.language}" onclick={download}>{w.getHires}</a>
        {:else if rowsOf(list)}
          <a class="link" download href="/api/people/rows/{rowsOf(list)}/sheet.xlsx?language={text.language}" onclick={download}
            >{w.getRows}</a
          >
        {:else}
          <a class="link" download href="/api/lists/{list}/sheet.xlsx?language={text.language}">{w.getSheet}</a>
          <a class="link" download href="/api/lists/{list}/sheet.xlsx?language={text.language}&filled=true">{w.getFilled}</a>
        {/if}
      </p>
      {#if list === PEOPLE}<p class="text-soft pb-3 text-xs">{w.peopleNote}</p>{/if}
      <div
        role="group"
        aria-label={w.drop}
        class="flex min-h-56 flex-col items-center justify-center gap-3 rounded border-2 border-dashed p-6 text-center {over
          ? 'border-sea bg-sea-tint'
          : 'border-soft bg-sheet'}"
        ondragover={(e) => {
          e.preventDefault();
          over = true;
        }}
        ondragleave={() => (over = false)}
        ondrop={(e) => {
          e.preventDefault();
          over = false;
          take(e.dataTransfer?.files[0]);
        }}
      >
        {#if sending.isPending}
          <p role="status">{w.uploading}</p>
        {:else}
          <p class="font-semibold">{w.drop}</p>
          <input
            bind:this={input}
            type="file"
            class="sr-only"
            tabindex="-1"
            aria-label={w.choose}
            accept=".csv,.tsv,.txt,.xlsx"
            onchange={(e) => take(e.currentTarget.files?.[0])}
          />
          <Button look="primary" onclick={() => input!.click()}>{w.choose}</Button>
          <p class="text-soft text-xs">{w.dropNote(MB)}</p>
        {/if}
      </div>
      {#if problem}<p role="alert" class="border-rust bg-rust-tint text-rust mt-3 border-l-4 px-4 py-2">{problem}</p>{/if}
    {/if}
  </div>
{/if}
