<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, data } from '$lib/api/client';
  import { copies, keyFrom, nameOf, type Configuration } from '$lib/fields/configuration';
  import { Drafting } from '$lib/fields/drafting.svelte';
  import { sentenceOf, unreadable } from '$lib/fields/findings';
  import Approvals from '$lib/fields/Approvals.svelte';
  import FieldEditor from '$lib/fields/FieldEditor.svelte';
  import FieldTable from '$lib/fields/FieldTable.svelte';
  import Publish from '$lib/fields/Publish.svelte';
  import { kindOf } from '$lib/fields/summary';
  import Try from '$lib/fields/Try.svelte';
  import Versions from '$lib/fields/Versions.svelte';
  import { words } from '$lib/fields/words';
  import { keys } from '$lib/keys/keys.svelte';
  import { fits } from '$lib/text/fits';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import FooterSheet from '$lib/ui/FooterSheet.svelte';
  import { failed } from '$lib/ui/toast';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { fieldKeys } from '$lib/fields/queries';

  /** What a record holds, who sees it, whether it is sound, how complete it is. */
  const client = useQueryClient();
  const server = createQuery(() => ({ queryKey: fieldKeys.configuration, queryFn: () => data(api.GET('/api/fields')) }));
  const drafting = new Drafting();
  const w = $derived(words());
  let taken: unknown;
  $effect(() => {
    const answer = server.data;
    // What is being edited is not thrown away for an answer of its own save.
    if (!answer || answer === taken || (drafting.isDraft && answer.draft && taken !== undefined)) return;
    taken = answer;
    drafting.take(answer);
  });

  let find = $state('');
  let finder = $state<HTMLInputElement>();
  let table = $state<FieldTable>();
  let selected = $state<string>();
  let editing = $state(false);
  // A field that is opened gets an editor of its own; one that only goes by another key keeps the one it has.
  let openedAs = $state<string>();
  let publishing = $state(false);
  let trying = $state(false);
  let approving = $state(false);
  let comparing = $state(false);
  let file = $state<HTMLInputElement>();

  const fields = $derived(drafting.configuration.fields);
  const shown = $derived(
    find.trim() === '' ? fields : fields.filter((f) => fits(`${f.key} ${Object.values(f.label ?? {}).join(' ')}`, find))
  );
  const field = $derived(selected ? drafting.find(selected) : undefined);
  const findings = $derived(drafting.review?.findings ?? []);
  const traps = $derived(findings.filter((f) => f.blocks).length);
  const isLive = (key: string) => ((server.data?.configuration as unknown as Configuration)?.fields ?? []).some((f) => f.key === key);

  function add() {
    const key = keyFrom(w.newField, fields);
    const section = field?.section ?? drafting.configuration.sections[0]?.key ?? '';
    const access = { coordinator: 'edit', administrator: 'edit' } as const;
    const made = { key, label: { en: words().newField }, section, type: 'text' as const, access };
    void drafting.put({ ...drafting.configuration, fields: [...fields, made] });
    find = '';
    selected = openedAs = key;
    editing = true;
    requestAnimationFrame(() => document.getElementById('field-label-en')?.focus());
  }
  /** Opens a field in the sheet below, with its row in sight above it. */
  function open(key: string) {
    selected = openedAs = key;
    editing = true;
    requestAnimationFrame(() => document.getElementById(`row-${key}`)?.scrollIntoView({ block: 'start' }));
  }
  async function discard() {
    if (!confirm(w.discardSure)) return;
    try {
      await data(api.DELETE('/api/fields/draft', { headers: { 'If-Match': drafting.version ?? '' } }));
    } catch (e) {
      return failed(text.failure(e));
    }
    taken = undefined;
    drafting.isDraft = false;
    editing = false;
    await client.invalidateQueries({ queryKey: fieldKeys.all });
  }
  async function take(chosen: FileList | null) {
    const first = chosen?.[0];
    if (!first) return;
    try {
      await drafting.put(JSON.parse(await first.text()) as Configuration);
    } catch (e) {
      failed(text.failure(e));
    }
    file!.value = '';
  }
  function download() {
    const link = document.createElement('a');
    link.href = URL.createObjectURL(new Blob([JSON.stringify(drafting.configuration, null, 2)], { type: 'application/json' }));
    link.download = 'fields.json';
    link.click();
    URL.revokeObjectURL(link.href);
  }
  function step(by: number) {
    const at = shown.findIndex((f) => f.key === selected);
    const next = shown[Math.max(0, Math.min(shown.length - 1, at + by))];
    if (next) document.getElementById(`row-${next.key}`)?.focus();
  }
  $effect(() =>
    keys.use(() => [
      { key: '/', label: text.t.keys.filter, run: () => finder?.focus() },
      { key: 'ArrowDown', label: text.t.keys.down, run: () => step(1) },
      { key: 'ArrowUp', label: text.t.keys.up, run: () => step(-1) },
      { key: 'Alt+ArrowDown', label: w.move, run: () => selected && table?.move(selected, 1) },
      { key: 'Alt+ArrowUp', run: () => selected && table?.move(selected, -1) },
      { key: 'e', label: w.edit, run: () => field && open(field.key) },
      { key: 'a', label: w.add, run: add },
      { key: 'Escape', run: () => (editing ? (editing = false) : selected ? (selected = undefined) : void goto('/arrivals')) }
    ])
  );
</script>

<svelte:head><title>{w.title} · Fid</title></svelte:head>

{#if !server.data}
  <Waiting error={server.error} retry={() => server.refetch()} />
{:else}
  <div class="page pb-8">
    <div class="flex flex-wrap items-end justify-between gap-3 pt-5 pb-3">
      <h1 class="text-2xl leading-tight">
        {w.news(fields.length, drafting.configuration.sections.length)}
        {#if drafting.isDraft && traps > 0}<span class="text-rust">{w.traps(traps)}</span>
        {:else if drafting.isDraft && findings.length > 0}<span class="text-ochre">{w.advice(findings.length)}</span>
        {:else if drafting.isDraft && drafting.review}<span class="text-sea">{w.sound}</span>{/if}
      </h1>
      <div class="flex flex-wrap gap-3">
        <Button onclick={() => (trying = true)}>{w.tryIt}</Button>
        <Button onclick={() => (approving = true)}>{w.approvals.title}</Button>
        <Button onclick={() => table?.addSection()}>{w.addSection}</Button>
        <Button key="a" onclick={add}>{w.add}</Button>
        {#if drafting.isDraft}
          <Button look="danger" onclick={discard}>{w.discard}</Button>
          <Button look="primary" disabled={drafting.saving} onclick={() => (publishing = true)}>{w.publish}</Button>
        {/if}
      </div>
    </div>
    {#if drafting.other}
      <div role="alert" class="bg-ochre-tint border-ochre mb-3 flex flex-wrap gap-x-6 gap-y-1 border-l-4 px-4 py-3">
        <strong>{w.other(drafting.other.byName)}</strong>
        <button type="button" class="link" onclick={() => drafting.settle(false)}>{w.takeTheirs}</button>
        <button type="button" class="link" onclick={() => drafting.settle(true)}>{w.keepOurs}</button>
      </div>
    {/if}
    {#each drafting.errors as error (error.pointer)}
      <p role="alert" class="bg-rust-tint text-rust mb-2 px-4 py-2 font-semibold">{unreadable(error, drafting)}</p>
    {/each}
    {#if findings.length > 0}
      <ul class="mb-3">
        {#each findings as finding, i (i)}
          <li class="mb-1 border-l-4 px-4 py-2 {finding.blocks ? 'bg-rust-tint border-rust' : 'bg-ochre-tint border-ochre'}">
            {sentenceOf(finding, drafting)}
            {#if drafting.find(finding.fields[0] ?? '')}
              <button type="button" class="link ml-2" onclick={() => open(finding.fields[0]!)}
                >{w.open(nameOf(drafting.find(finding.fields[0]!)!, text.language))}</button
              >
            {/if}
          </li>
        {/each}
      </ul>
    {/if}
    <div class="flex flex-wrap items-end justify-between gap-x-6 gap-y-2 pb-1">
      <input
        bind:this={finder}
        bind:value={find}
        aria-label={w.find}
        placeholder={w.find}
        class="border-ink min-h-8 w-56 border-b bg-transparent px-0.5"
      />
      <p class="text-soft flex flex-wrap gap-x-4 text-xs">
        <span>■ {w.access.edit}</span><span>◧ {w.access.ask}</span><span>□ {w.access.view}</span><span>– {w.access.none}</span>
        <button type="button" class="link" onclick={() => (comparing = true)}>{w.versions}</button>
        <button type="button" class="link" onclick={download}>{w.exportIt}</button>
        <label class="link cursor-pointer"
          >{w.importIt}<input
            bind:this={file}
            type="file"
            accept="application/json,.json"
            class="sr-only"
            onchange={(e) => take(e.currentTarget.files)}
          /></label
        >
      </p>
    </div>
    <FieldTable
      bind:this={table}
      {drafting}
      server={server.data}
      {shown}
      {selected}
      onselect={(key) => {
        if (key !== selected) openedAs = key;
        selected = key;
      }}
      onopen={open}
    />
  </div>
  {#if field}
    {@const name = nameOf(field, text.language)}
    <FooterSheet label={name}>
      {#if editing}
        <div class="flex w-full flex-wrap items-center justify-between gap-3">
          <h2 class="text-lg">{name}</h2>
          <Button onclick={() => (editing = false)}>{w.sheet.close}</Button>
        </div>
        <div class="w-full">
          {#key openedAs}
            <FieldEditor
              {field}
              {drafting}
              server={server.data}
              live={isLive(field.key)}
              onrename={(key) => (selected = key)}
              oncopy={() => {
                const [copy] = copies([field], fields, undefined, w.copyOf);
                const at = fields.findIndex((f) => f.key === field.key) + 1;
                void drafting.put({ ...drafting.configuration, fields: [...fields.slice(0, at), copy!, ...fields.slice(at)] });
                open(copy!.key);
              }}
              onremove={() => {
                void drafting.put({ ...drafting.configuration, fields: fields.filter((f) => f.key !== field.key) });
                selected = undefined;
                editing = false;
              }}
            />
          {/key}
        </div>
      {:else}
        <p class="min-w-0 flex-1">
          <strong>{name}</strong>
          <span class="text-soft text-xs"
            >{kindOf(field, fields, w)} · {field.key}{#if server.data.templates[field.key]}
              · {w.usedBy(server.data.templates[field.key]!)}{/if}{#if drafting.isDraft}
              · {drafting.saving ? w.saving : w.draftBy(drafting.by)}{/if}</span
          >
        </p>
        {#if field.type !== 'computed' && field.type !== 'rows' && isLive(field.key)}<Button onclick={() => goto(`/fields/${field.key}`)}
            >{w.fill}</Button
          >{/if}
        <Button look="primary" key="e" onclick={() => field && open(field.key)}>{w.edit}</Button>
      {/if}
    </FooterSheet>
  {/if}
  {#if publishing}<Publish bind:open={publishing} {drafting} />{/if}
  {#if trying}<Try bind:open={trying} {drafting} server={server.data} />{/if}
  {#if approving}<Approvals bind:open={approving} {drafting} server={server.data} />{/if}
  {#if comparing}
    <Versions bind:open={comparing} live={server.data.version} restore={(configuration) => void drafting.put(configuration)} />
  {/if}
{/if}
