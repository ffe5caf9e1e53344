<script lang="ts">
  import { api, data, type Api, type ProblemEntry, ApiProblem } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { valueOf } from '$lib/text/typed';
  import Button from '$lib/ui/Button.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { failed } from '$lib/ui/toast';
  import { nameOf } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import { words } from './words';

  /** Approvals tried on somebody's record: who would be asked about a change. */
  let { drafting }: { drafting: Drafting } = $props();
  const w = $derived(words().approvals);
  const about = $derived([...new Set((drafting.configuration.approvals ?? []).flatMap((a) => a.fields))]);
  let employment = $state('');
  let called = $state('');
  let key = $state('');
  let value = $state('');
  let errors = $state<ProblemEntry[]>([]);
  let route = $state<Api['RouteResponse']>();
  const field = $derived(drafting.find(key || about[0] || ''));

  async function look() {
    if (!field) return;
    errors = [];
    route = undefined;
    try {
      route = await data(
        api.POST('/api/fields/draft/approvals', {
          body: {
            configuration: drafting.configuration as unknown as Record<string, unknown>,
            employment,
            changes: { [field.key]: valueOf(field, value) },
            from: null
          }
        })
      );
    } catch (e) {
      if (e instanceof ApiProblem && e.errors.length > 0) errors = e.errors;
      else failed(text.failure(e));
    }
  }
</script>

<section class="border-ink mt-4 border-t pt-3" aria-label={w.try}>
  <h3 class="text-base">{w.try}</h3>
  <div class="grid items-end gap-x-5 md:grid-cols-4">
    <PersonPicker
      id="trial-person"
      label={w.tryOn}
      value={employment}
      shown={called}
      onchange={(v, name) => {
        employment = v;
        called = name;
      }}
    />
    <Picker
      id="trial-field"
      label={w.tryField}
      value={field?.key ?? ''}
      choices={about.map((k) => ({ value: k, label: nameOf(drafting.find(k) ?? { key: k }, text.language) }))}
      onchange={(v) => (key = v)}
    />
    <TextField id="trial-value" label={w.tryValue} bind:value error={text.problem(errors.find((e) => e.pointer.startsWith('/changes')))} />
    <p class="pb-4"><Button disabled={!employment || !field} onclick={look}>{w.tryAct}</Button></p>
  </div>
  {#each errors.filter((e) => !e.pointer.startsWith('/changes')) as error (error.pointer)}
    <p class="text-rust" role="alert">{error.detail}</p>
  {/each}
  {#if route}
    <p role="status" class="font-semibold">
      {route.steps.length > 0 ? w.asked(route.steps.map((s) => s.who.join(' / ') || w.left)) : w.nobody}
    </p>
  {/if}
</section>
