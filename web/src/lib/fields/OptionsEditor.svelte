<script lang="ts">
  import UnlabelledInput from '$lib/lists/parts/UnlabelledInput.svelte';
  import Lines from '$lib/lists/parts/Lines.svelte';
  import { text } from '$lib/text/index.svelte';
  import { keyFrom, type Option } from './configuration';
  import { words } from './words';

  /** The options of a choice, in order, labelled in each language, and under which values of the parent each is offered. */
  interface Props {
    options: Option[];
    /** The values of the field that narrows this one; none where none does. */
    parents: { value: string; label: string }[];
    onchange: (options: Option[]) => void;
  }
  let { options, parents, onchange }: Props = $props();
  const w = $derived(words());
  const nameOf = (o: Option) => o.label?.[text.language] || o.label?.en || o.value;

  // An option has a value from the first: until somebody chooses one it follows the label.
  const fresh = /^option(_\d+)?$/;
  const valueFrom = (label: string, except?: Option) =>
    keyFrom(
      label,
      options.filter((o) => o !== except).map((o) => ({ key: o.value }))
    );
  const labelled = (option: Option, language: string, label: string): Partial<Option> => ({
    label: { ...option.label, [language]: label },
    ...(fresh.test(option.value) && label.trim() !== '' ? { value: valueFrom(label, option) } : {})
  });

  function pair(option: Option, parent: string, on: boolean) {
    const within = parents.map((p) => p.value).filter((p) => (p === parent ? on : !option.within || option.within.includes(p)));
    onchange(
      options.map((o) => {
        if (o.value !== option.value) return o;
        return { ...o, within: within.length === parents.length ? undefined : within };
      })
    );
  }
</script>

<Lines
  id="field-options"
  label={w.sheet.options}
  items={options}
  heads={[w.sheet.option, w.sheet.label('en'), w.sheet.label('de'), '']}
  grid="grid-cols-2 sm:grid-cols-[8rem_1fr_1fr_auto_6rem]"
  addLabel={w.sheet.addOption}
  ordered
  blank={() => ({ value: valueFrom('option') }) as Option}
  {onchange}
>
  {#snippet line(option, set)}
    <UnlabelledInput
      label={w.sheet.option}
      value={option.value}
      maxlength={100}
      onchange={(e) => {
        const value = e.currentTarget.value.trim();
        if (value !== '') set({ value });
        else e.currentTarget.value = option.value;
      }}
    />
    {#each ['en', 'de'] as language (language)}
      <UnlabelledInput
        label={w.sheet.label(language)}
        value={option.label?.[language] ?? ''}
        maxlength={200}
        onchange={(e) => set(labelled(option, language, e.currentTarget.value))}
      />
    {/each}
    <button type="button" class="link text-xs" aria-pressed={option.retired ?? false} onclick={() => set({ retired: !option.retired })}
      >{option.retired ? w.sheet.restore : w.sheet.retire}</button
    >
  {/snippet}
</Lines>
{#if parents.length > 0}
  <div class="overflow-x-auto">
    <table class="narrow text-xs">
      <thead>
        <tr
          ><th class="pr-4 text-left font-normal"><span class="sr-only">{w.sheet.option}</span></th
          >{#each parents as parent (parent.value)}<th class="text-soft px-2 font-normal">{parent.label}</th>{/each}</tr
        >
      </thead>
      <tbody>
        {#each options as option (option.value)}
          <tr class="border-rule border-t">
            <th scope="row" class="py-1 pr-4 text-left font-semibold">{nameOf(option)}</th>
            {#each parents as parent (parent.value)}
              <td class="px-2 text-center"
                ><input
                  type="checkbox"
                  aria-label="{w.sheet.offeredUnder(nameOf(option))} {parent.label}"
                  checked={!option.within || option.within.includes(parent.value)}
                  onchange={(e) => pair(option, parent.value, e.currentTarget.checked)}
                /></td
              >
            {/each}
          </tr>
        {/each}
      </tbody>
    </table>
  </div>
{/if}
