<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { ApiProblem } from '$lib/api/client';
  import { give, offered } from './files';
  import { text } from '$lib/text/index.svelte';
  import Line from '$lib/ui/Line.svelte';
  import { failed } from '$lib/ui/toast';
  import { createMutation } from '@tanstack/svelte-query';
  import { words } from './words';

  /** A file: seen small where it is a picture, opened by its name, given by choosing or dropping another. */
  interface Props {
    id: string;
    employment: string;
    field: Api['FieldResponse'];
    /** The id of the file, as it is or as it will be once saved. */
    value: string;
    note?: string;
    noteTone?: 'faint' | 'ochre';
    error?: string;
    /** Left out where the reader may not change it. */
    onchange?: (value: string) => void;
  }
  let { id, employment, field, value, note, noteTone, error, onchange }: Props = $props();
  const t = $derived(words());
  let given = $state<{ id: string; name: string; picture?: string }>();
  let unseen = $state('');
  let refused = $state<string>();
  const takes = $derived(
    field.takes && onchange
      ? t.takes(field.takes.groups?.map((g) => text.t.common.fileGroups[g]) ?? [], Math.round(field.takes.mostBytes / 100_000) / 10)
      : undefined
  );
  const address = $derived(`/api/records/${employment}/fields/${field.key}/file?file=${value}`);
  const fresh = $derived(given && given.id === value ? given : undefined);
  const name = $derived(fresh?.name ?? field.display ?? '');
  const picture = $derived(fresh ? fresh.picture : address);

  const pictureOf = (file: File) =>
    new Promise<string>((resolve, reject) => {
      const reader = new FileReader();
      reader.onload = () => resolve(String(reader.result));
      reader.onerror = () => reject(reader.error ?? new Error());
      reader.readAsDataURL(file);
    });

  const taking = createMutation(() => ({
    mutationFn: async (file: File) => {
      const stored = await give(file, field.key);
      // Before it is saved nobody sees it but from where it came.
      const shown = stored.mediaType.startsWith('image/') ? await pictureOf(file) : undefined;
      given = { id: stored.id, name: stored.name, picture: shown };
      onchange?.(stored.id);
    },
    onError: (e) => {
      // What is wrong with the file stands at the field; what went wrong on the way does not.
      refused = e instanceof ApiProblem ? (text.problem(e.errors[0]) ?? (e.code === 'too-large' ? text.failure(e) : undefined)) : undefined;
      if (!refused) failed(text.failure(e));
    }
  }));
  function take(file: File | undefined) {
    if (!file || !onchange) return;
    refused = undefined;
    taking.mutate(file);
  }
</script>

<Line {id} label={field.label[text.language]} note={note ?? takes} {noteTone} error={refused ?? error} dotted={!onchange}>
  <!-- svelte-ignore a11y_no_static_element_interactions (dropping is a second way; the button beside is the first) -->
  <div
    class="flex w-full min-w-0 items-center gap-3 py-0.5"
    ondragover={(e) => e.preventDefault()}
    ondrop={(e) => {
      e.preventDefault();
      void take(e.dataTransfer?.files[0]);
    }}
  >
    {#if value && picture && unseen !== value}
      <img src={picture} alt="" class="border-rule size-10 shrink-0 border object-cover" onerror={() => (unseen = value)} />
    {/if}
    {#if value && !fresh}<a class="link min-w-0 truncate font-medium" href={address} target="_blank" rel="noreferrer">{name}</a>
    {:else if value}<span class="min-w-0 truncate font-medium">{name}</span>{/if}
    {#if onchange}
      <label class="link shrink-0 cursor-pointer text-xs focus-within:outline-2">
        {taking.isPending ? text.t.common.sending : value ? t.replace : t.choose}
        <input
          {id}
          type="file"
          accept={offered(field.takes?.groups)}
          class="sr-only"
          disabled={taking.isPending}
          aria-describedby="{id}-note"
          onchange={(e) => void take(e.currentTarget.files?.[0])}
        />
      </label>
      {#if value}<button
          type="button"
          class="link shrink-0 text-xs"
          onclick={() => {
            refused = undefined;
            onchange('');
          }}>{t.remove}</button
        >{/if}
    {:else if !value}<input {id} readonly value="" class="w-full bg-transparent outline-none" aria-describedby="{id}-note" />
    {:else}<span {id}></span>{/if}
  </div>
</Line>
