<script lang="ts">
  import { goto } from '$app/navigation';
  import { api, ApiProblem, data, type Api } from '$lib/api/client';
  import { again } from '$lib/api/again';
  import { session } from '$lib/api/session.svelte';
  import { hireKeys } from '$lib/hires/queries';
  import { keys } from '$lib/keys/keys.svelte';
  import FieldInput from './FieldInput.svelte';
  import { recordKeys } from './queries';
  import { fieldAt } from './rows';
  import { text } from '$lib/text/index.svelte';
  import { typedOf, valueOf } from '$lib/text/typed';
  import Button from '$lib/ui/Button.svelte';
  import DateField from '$lib/ui/DateField.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { done, failed } from '$lib/ui/toast';
  import { createMutation, createQuery, useQueryClient } from '@tanstack/svelte-query';
  import { usualFields } from './usualFields';
  import { words, type HireOccasion } from '$lib/occasions/words';

  /** From when does somebody have another job, or until when do they work here, and what has to be done for it? */
  interface Props {
    open: boolean;
    occasion: Exclude<HireOccasion, 'arrival'>;
    record: Api['RecordResponse'];
  }
  let { open = $bindable(), occasion, record }: Props = $props();
  const w = $derived(words()[occasion].open);
  const client = useQueryClient();
  const id = crypto.randomUUID();
  const name = $derived(`${record.givenName} ${record.familyName}`.trim());

  const offer = createQuery(() => ({
    queryKey: hireKeys.offer(record.employmentId, occasion),
    queryFn: () =>
      data(api.GET('/api/people/{id}/checklists/offer', { params: { path: { id: record.employmentId }, query: { occasion } } }))
  }));
  let day = $state<string | null>();
  let template = $state<string>();
  let why = $state('');
  let typed = $state<Record<string, string>>({});
  let more = $state<string[]>([]);
  let refused = $state<Api['ProblemEntry'][]>([]);

  const theDay = $derived(day === undefined ? (offer.data?.lastDay ?? null) : day);
  const theTemplate = $derived(template ?? (offer.data?.templates.length === 1 ? offer.data.templates[0]!.code : ''));
  const offered = $derived((offer.data?.fields ?? []).flatMap((key) => fieldAt(record, key) ?? []));
  const shown = $derived(offered.filter((f) => usualFields.includes(f.key) || more.includes(f.key)));
  const others = $derived(offered.filter((f) => !shown.includes(f)).map((f) => ({ value: f.key, label: f.label[text.language] })));
  /** What the record says today, beside what it is to say. */
  const nowIs = (field: Api['FieldResponse']) => {
    const shown = field.display ?? (field.type === 'money' && typeof field.value === 'number' ? text.money(field.value) : typedOf(field));
    return shown ? words().now(shown) : undefined;
  };
  // What is typed anew is not wrong any more until it is looked at again.
  const mend = (pointer: string) => (refused = refused.filter((p) => p.pointer !== pointer));
  const error = (pointer: string) => {
    const problem = refused.find((p) => p.pointer === pointer);
    return problem ? text.problem(problem) : undefined;
  };

  const opening = createMutation(() => ({
    mutationFn: () =>
      data(
        api.POST('/api/people/{id}/checklists', {
          params: { path: { id: record.employmentId } },
          body: {
            id,
            occasion,
            template: theTemplate,
            day: theDay!,
            values: Object.fromEntries(shown.flatMap((f) => (typed[f.key]?.trim() ? [[f.key, valueOf(f, typed[f.key]!)]] : []))),
            why: why.trim() || null
          }
        })
      ),
    onSuccess: async (opened) => {
      // Said first: once it is closed, nobody knows any more whom it was about.
      done(w.done(name));
      await again(client, recordKeys.one(record.employmentId), hireKeys.arrivals);
      open = false;
      await goto(`/hires/${opened.id}/checklist`);
    },
    onError: (e) => {
      if (!(e instanceof ApiProblem && e.errors.length > 0)) return failed(text.failure(e));
      refused = e.errors;
      document.getElementById(`open-${e.errors[0]!.pointer.split('/').at(-1)}`)?.focus();
    }
  }));
  function act() {
    if (opening.isPending) return;
    refused = theDay ? [] : [{ pointer: '/day', code: 'missing', detail: words().dayMissing }];
    if (theDay) opening.mutate();
    else document.getElementById('open-day')?.focus();
  }
  $effect(() => (open ? keys.use(() => [{ key: 'Ctrl+s', run: act, whileTyping: true }], true) : undefined));
</script>

<Dialog bind:open title={w.title(name)} focus="#open-day">
  <form
    class="px-5 pt-3 pb-4"
    novalidate
    onsubmit={(e) => {
      e.preventDefault();
      act();
    }}
  >
    {#if offer.data && offer.data.templates.length === 0}
      <p role="status">
        {w.none}
        {#if session.may('edit template')}<a class="link font-semibold" href="/templates">{words().makeTemplate}</a>{/if}
      </p>
    {/if}
    <div class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
      <DateField
        id="open-day"
        label={w.day}
        value={theDay}
        error={error('/day')}
        onchange={(to) => {
          day = to;
          mend('/day');
        }}
      />
      <Picker
        id="open-template"
        label={w.template}
        value={theTemplate}
        choices={(offer.data?.templates ?? []).map((t) => ({ value: t.code, label: t.name }))}
        error={error('/template')}
        onchange={(to) => {
          template = to;
          mend('/template');
        }}
      />
    </div>
    {#if offered.length > 0}
      <h3 class="pt-2 pb-1 text-sm">{w.values}</h3>
      <div class="grid gap-x-6 gap-y-2 sm:grid-cols-2">
        {#each shown as field (field.key)}
          <FieldInput
            id="open-{field.key}"
            {field}
            value={typed[field.key] ?? ''}
            note={nowIs(field)}
            within={field.parent ? typed[field.parent] || String(fieldAt(record, field.parent)?.value ?? '') : ''}
            error={error(`/values/${field.key}`)}
            onchange={(to) => {
              typed[field.key] = to;
              mend(`/values/${field.key}`);
            }}
          />
        {/each}
        {#if others.length > 0}
          <Picker id="open-more" label={w.more} value="" choices={others} onchange={(to) => to && (more = [...more, to])} />
        {/if}
      </div>
    {/if}
    <div class="pt-2"><TextField id="open-why" label={w.why} bind:value={why} maxlength={500} error={error('/why')} /></div>
    <div class="mt-4 flex flex-wrap justify-end gap-3">
      <Button onclick={() => (open = false)}>{text.t.common.cancel}</Button>
      <Button type="submit" look="primary" key="Ctrl+s" disabled={!offer.data || offer.data.templates.length === 0 || opening.isPending}
        >{w.do}</Button
      >
    </div>
  </form>
</Dialog>
