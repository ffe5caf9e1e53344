<script lang="ts">
  import Line from '$lib/ui/Line.svelte';
  import { untrack } from 'svelte';
  import { stepsFrom, typedSteps, type Step } from './steps';
  import { words } from './words';

  /** What are the steps of this task, one to a line, in both languages? */
  interface Props {
    steps: Step[];
    note?: (property: string) => string | undefined;
    error?: (property: string) => string | undefined;
    onchange: (property: string, value: unknown) => void;
  }
  let { steps, note = () => undefined, error = () => undefined, onchange }: Props = $props();
  const w = $derived(words().steps);
  // Lines as they are typed: an empty one between two is no step yet.
  const typed = $state(untrack(() => ({ en: typedSteps(steps, false), de: typedSteps(steps, true) })));
</script>

{#each ['en', 'de'] as const as language (language)}
  <div class="sm:col-span-2">
    <Line
      id="task-steps-{language}"
      label={w[language]}
      note={language === 'en' ? (note('steps') ?? w.note) : w.noteDe}
      error={language === 'en' ? error('steps') : undefined}
    >
      <textarea
        id="task-steps-{language}"
        rows="3"
        dir="auto"
        class="field-sizing-content max-h-60 w-full bg-transparent px-0.5 py-1 font-medium outline-none"
        aria-describedby="task-steps-{language}-note"
        bind:value={typed[language]}
        oninput={() => onchange('steps', stepsFrom(typed.en, typed.de))}></textarea>
    </Line>
  </div>
{/each}
