<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { session } from '$lib/api/session.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import RunTaskLine from './RunTaskLine.svelte';
  import { Settling } from './settling.svelte';
  import { words } from './words';

  // What is still to be done before this run may be handed over, by whom, by when?
  interface Props {
    checklist: Api['RunChecklistResponse'] | null;
    templates: Api['RunTemplate'][];
    run: { payGroup: string; period: string };
    mayEdit: boolean;
  }
  let { checklist, templates, run, mayEdit }: Props = $props();
  const w = $derived(words());
  const settling = new Settling();
  let chosen = $state('');
  const template = $derived(templates.find((t) => t.code === chosen) ?? templates[0]);
  const stages = $derived([...new Set(checklist?.tasks.map((t) => t.stage))]);
</script>

<section aria-label={w.title} class="border-ink mb-4 border-t pt-2">
  {#if checklist}
    <div class="flex flex-wrap items-baseline justify-between gap-x-6">
      <h2 class="text-base font-semibold">{checklist.holding === 0 ? w.mayBeHandedOver : w.holding(checklist.holding)}</h2>
      <p class="text-soft text-xs">
        {checklist.template ? w.from(checklist.template) : ''}
        {#if mayEdit && checklist.isUntouched}<button
            type="button"
            class="link ml-3"
            disabled={settling.busy}
            onclick={() => settling.takeAway(checklist.id)}>{w.takeAway}</button
          >{/if}
      </p>
    </div>
    <div class="grid gap-x-8 gap-y-2 pt-1 lg:grid-cols-3">
      {#each stages as stage (stage)}
        <div>
          <h3 class="text-soft text-xs">{stage}</h3>
          {#each checklist.tasks.filter((t) => t.stage === stage) as task (task.key)}
            <RunTaskLine checklist={checklist.id} {task} {settling} mayAll={mayEdit} />
          {/each}
        </div>
      {/each}
    </div>
  {:else if mayEdit && template}
    <div class="flex flex-wrap items-end gap-x-5 gap-y-2">
      <p class="text-soft py-1">{w.none}</p>
      {#if templates.length > 1}
        <div class="w-56">
          <Picker
            id="run-template"
            label={w.template}
            value={template.code}
            choices={templates.map((t) => ({ value: t.code, label: t.name }))}
            onchange={(code) => (chosen = code)}
          />
        </div>
      {/if}
      <Button disabled={settling.busy} onclick={() => settling.begin(run, template.code)}>{w.begin}</Button>
    </div>
  {:else}
    <p class="text-soft">
      {w.none}
      {#if mayEdit}{w.noTemplate}
        {#if session.may('edit template')}<a class="link" href="/templates">{w.toTemplates}</a>{/if}{/if}
    </p>
  {/if}
</section>
