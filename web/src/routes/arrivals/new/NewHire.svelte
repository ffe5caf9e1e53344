<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { api, ApiProblem, data } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import { fieldLabel, fieldTitle } from '$lib/text/fieldLabels.svelte';
  import { keys } from '$lib/keys/keys.svelte';
  import { words } from '$lib/hires/words';
  import ListPicker from '$lib/lists/ListPicker.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { settled } from '$lib/ui/settled.svelte';
  import { tick } from 'svelte';
  import { createMutation, createQuery, keepPreviousData, useQueryClient } from '@tanstack/svelte-query';
  import { draft } from './draft.svelte';
  import FullFields from './FullFields.svelte';
  import KnownPeople from './KnownPeople.svelte';
  import LikeColleague from './LikeColleague.svelte';
  import { NewHireForm, usual } from './newHireForm.svelte';
  import PreviewReadings from './PreviewReadings.svelte';
  import { hireKeys } from '$lib/hires/queries';
  import { templateKeys } from '$lib/templates/queries';

  /** A footer sheet over Arrivals: the least that must be typed, and all that the template fills in. */
  let { open = $bindable() }: { open: boolean } = $props();
  const t = $derived(words().newHire);
  const o = $derived(words().opening);
  const client = useQueryClient();

  const templates = createQuery(() => ({ queryKey: templateKeys.all, queryFn: () => data(api.GET('/api/templates')) }));
  const asked = settled(() => JSON.stringify(draft.request));
  const preview = createQuery(() => ({
    queryKey: hireKeys.preview(asked.current),
    queryFn: ({ signal }) => data(api.POST('/api/hires/preview', { body: JSON.parse(asked.current) as typeof draft.request, signal })),
    enabled: open && draft.canBeWorkedOut,
    placeholderData: keepPreviousData
  }));

  const form = new NewHireForm(draft, () => preview.data);
  const { error } = form;

  const roles = $derived(
    (templates.data ?? [])
      .filter((r) => r.opens && r.occasion === 'arrival')
      .map((r) => ({ value: r.code, label: r.name, detail: r.buildsOn ?? '' }))
  );
  const fieldId = (pointer: string) => `new-${pointer.split('/').at(-1)}`;
  // What is typed outlives the sheet, not the tab: one that closes asks.
  beforeNavigate((navigation) => {
    if (navigation.type === 'leave' && session.user && draft.count > 0) navigation.cancel();
  });

  const openHireMutation = createMutation(() => ({
    mutationFn: async (andFillIn: boolean) => {
      const hire = await data(api.POST('/api/hires', { body: draft.request }));
      const who = `${draft.typed.given_name ?? ''} ${draft.typed.family_name ?? ''}`.trim();
      draft.clear();
      open = false;
      done(t.opened(who));
      await client.invalidateQueries({ queryKey: hireKeys.arrivals });
      await client.invalidateQueries({ queryKey: hireKeys.intake });
      await goto(`/hires/${hire.id}/${andFillIn ? 'record' : 'checklist'}`);
    },
    onError: async (e) => {
      if (e instanceof ApiProblem && e.errors.length > 0) {
        form.refused = e.errors;
        // A reason is asked for only now.
        await tick();
        document.getElementById(fieldId(e.errors[0]!.pointer))?.focus();
      } else failed(text.failure(e));
    }
  }));
  function openHire(andFillIn: boolean) {
    if (openHireMutation.isPending) return;
    form.refused = [];
    openHireMutation.mutate(andFillIn);
  }

  $effect(() =>
    open
      ? keys.use(
          () => [
            { key: 'Ctrl+s', run: () => void openHire(false), whileTyping: true },
            { key: 'Ctrl+Enter', run: () => void openHire(true), whileTyping: true }
          ],
          true
        )
      : undefined
  );
</script>

<Dialog bind:open title={t.title} quiet place="bottom" focus="#new-given_name">
  <form
    class="page pt-4"
    novalidate
    onsubmit={(e) => {
      e.preventDefault();
      void openHire(false);
    }}
  >
    <div class="mb-3 flex flex-wrap items-baseline gap-x-4">
      <p class="news text-xl" aria-hidden="true">{t.title}</p>
      <div role="group" aria-label={t.title} class="flex flex-wrap gap-x-5">
        {#each ['template', 'full', 'like'] as const as one (one)}
          <button
            type="button"
            aria-pressed={draft.way === one}
            class="border-b-2 pb-0.5 font-semibold {draft.way === one ? 'border-ink' : 'text-soft hover:text-ink border-transparent'}"
            onclick={() => (draft.way = one)}>{o.ways[one]}</button
          >
        {/each}
        <a
          href="/arrivals/many"
          class="text-soft hover:text-ink border-b-2 border-transparent pb-0.5 font-semibold"
          onclick={() => (open = false)}>{o.ways.many}</a
        >
      </div>
      <p class="text-soft ml-auto text-xs">{t.kept}</p>
    </div>
    <KnownPeople problem={error('/person')} />
    {#if draft.way === 'like'}<LikeColleague />{/if}
    <div class="grid gap-x-9 gap-y-4 lg:grid-cols-[1fr_19rem]">
      <div class="grid grid-cols-1 content-start gap-x-5 gap-y-2 sm:grid-cols-2 md:grid-cols-4">
        <TextField
          id="new-given_name"
          label={t.given}
          bind:value={draft.typed.given_name!}
          error={error('/typed/given_name')}
          autocomplete="off"
        />
        <TextField
          id="new-family_name"
          label={t.family}
          bind:value={draft.typed.family_name!}
          error={error('/typed/family_name')}
          autocomplete="off"
        />
        <div>
          <TextField
            id="new-email"
            label={t.email}
            type="email"
            bind:value={draft.typed.email!}
            error={error('/typed/email')}
            autocomplete="off"
          />
        </div>
        <DateField
          id="new-birth_date"
          label={o.born}
          value={draft.typed.birth_date || null}
          note={typeof preview.data?.age === 'number' ? o.aged(preview.data.age) : o.bornHint}
          onchange={(v) => draft.set('birth_date', v ?? '')}
          error={error('/typed/birth_date')}
        />
        <Picker
          id="new-template"
          label={t.template}
          bind:value={draft.template}
          choices={roles}
          shown={draft.template === '' ? (preview.data?.templateName ?? '') : undefined}
          note={preview.data ? t.version(preview.data.templateVersion) : ''}
          error={error('/template')}
        />
        <DateField id="new-start" label={t.start} bind:value={draft.start} error={error('/start')} />
        <ListPicker
          id="new-site"
          label={t.site}
          list="sites"
          bind:value={draft.typed.site!}
          shown={form.shown('site')}
          note={form.note('site')}
          error={error('/typed/site')}
        />
        {#if draft.way === 'full'}
          <FullFields preview={preview.data} {error} without={['given_name', 'family_name', 'email', 'birth_date', 'site']} />
        {:else}
          {#each usual as one (one.field)}
            {@const at = {
              id: `new-${one.field}`,
              label: fieldTitle(one.field),
              note: form.note(one.field),
              error: error(`/typed/${one.field}`)
            }}
            {@const given = { value: form.held(one.field), shown: form.shown(one.field), onchange: (v: string) => draft.set(one.field, v) }}
            {#if one.as === 'list'}
              <ListPicker {...at} {...given} list={one.list} />
            {:else if one.as === 'person'}
              <PersonPicker {...at} {...given} />
            {:else}
              <TextField
                {...at}
                inputmode={one.as === 'decimal' ? 'decimal' : 'numeric'}
                value={one.as === 'decimal' ? form.heldNumber(one.field) : form.held(one.field)}
                oninput={(e) => draft.set(one.field, e.currentTarget.value)}
              />
            {/if}
          {/each}
        {/if}
      </div>
      <div class="border-rule lg:border-l lg:pl-6">
        {#if preview.data}
          <PreviewReadings preview={preview.data} start={draft.start} takeSoonest={(day) => (draft.start = day)} />
          {#if preview.data.backDated}
            {@const past = preview.data.backDated}
            <div class="border-rule border-t py-3">
              <p class="text-ochre font-semibold">{o.past.title(past.days)}</p>
              <p class="text-soft text-xs">{o.past.means(past.overdue)}</p>
              <label class="flex items-center gap-2 pt-1 font-semibold"
                ><input id="new-backDated" type="checkbox" bind:checked={draft.backDated} />{o.past.meant}</label
              >
            </div>
          {/if}
        {:else}
          <p class="text-soft">{t.begin}</p>
        {/if}
      </div>
    </div>
    {#if form.refused.length > 0}
      <div role="alert" class="border-rust bg-rust-tint text-rust mt-2 border-l-4 px-4 py-2">
        <p class="font-semibold">{text.t.common.notRight(form.refused.length)}</p>
        <ul>
          {#each form.refused as entry (entry.pointer)}
            <li>
              <a
                class="link"
                href="#{fieldId(entry.pointer)}"
                onclick={(e) => {
                  e.preventDefault();
                  document.getElementById(fieldId(entry.pointer))?.focus();
                }}>{entry.pointer === '/why' ? t.why : fieldLabel(entry.pointer.split('/').at(-1)!)}</a
              >: {text.problem(entry)}
            </li>
          {/each}
        </ul>
      </div>
    {/if}
    <!-- Asked for once it is needed; typed, it stays. -->
    {#if error('/why') || draft.why !== ''}
      <div class="max-w-xl pt-2">
        <TextField id="new-why" label={t.why} bind:value={draft.why} maxlength={500} error={error('/why')} />
      </div>
    {/if}
    <div class="border-rule bg-sheet sticky bottom-0 mt-3 flex flex-wrap items-center justify-between gap-3 border-t py-3">
      <p class="text-soft text-xs">
        {t.typed(draft.count, form.filledIn)}
      </p>
      <div class="flex flex-wrap gap-3">
        <Button key="Ctrl+Enter" disabled={openHireMutation.isPending} onclick={() => openHire(true)}>{t.openRest}</Button>
        <Button type="submit" look="primary" key="Ctrl+s" disabled={openHireMutation.isPending || !session.may('open hire')}
          >{t.open}</Button
        >
      </div>
    </div>
  </form>
</Dialog>
