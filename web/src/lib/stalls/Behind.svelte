<script lang="ts">
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Waiting from '$lib/ui/Waiting.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { behindQuery, type By, type Span } from './queries';
  import { words } from './words';

  /** Whose was it that took so long? */
  interface Props {
    open: boolean;
    by: By;
    key: string;
    name: string;
    span: Span;
  }
  let { open = $bindable(), by, key, name, span }: Props = $props();
  const hires = createQuery(() => behindQuery(by, key, span));
  const w = $derived(words());
</script>

<Dialog bind:open title={name}>
  <div class="px-5 pt-2 pb-4">
    {#if !hires.data}
      <Waiting error={hires.error} retry={() => hires.refetch()} />
    {:else}
      <!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls, so it must be reachable) -->
      <div class="max-h-[60dvh] overflow-auto" tabindex="0" role="region" aria-label={w.list.hire}>
        <table class="w-full text-left">
          <thead class="text-soft text-xs">
            <tr>
              <th class="py-1 pr-3 font-normal">{w.list.hire}</th>
              {#if by !== 'task'}<th class="pr-3 font-normal">{w.list.task}</th>{/if}
              <th class="pr-3 font-normal">{w.list.possible}</th>
              <th class="pr-3 font-normal">{w.list.done}</th>
              <th class="text-right font-normal">{w.list.days}</th>
            </tr>
          </thead>
          <tbody>
            {#each hires.data as hire, i (i)}
              <tr class="border-rule border-t align-baseline">
                <td class="py-1 pr-3"
                  ><a class="link font-semibold" href="/hires/{hire.hireId}/checklist"><bdi>{hire.name}</bdi></a>
                  <span class="text-soft text-xs">{w.list.starts(text.day(hire.start))}</span></td
                >
                {#if by !== 'task'}<td class="pr-3">{hire.task}</td>{/if}
                <td class="pr-3 whitespace-nowrap">{text.day(hire.possible)}</td>
                <td class="pr-3 whitespace-nowrap {hire.done && hire.due && hire.done > hire.due ? 'text-rust' : ''}"
                  >{hire.done ? text.day(hire.done) : w.list.stillOpen}
                  {#if hire.heldUp}<strong class="text-rust">· {w.list.heldUp}</strong>{/if}</td
                >
                <td class="text-right tabular-nums">{hire.days}</td>
              </tr>
            {/each}
          </tbody>
        </table>
      </div>
    {/if}
    <div class="mt-3 flex justify-end"><Button onclick={() => (open = false)}>{w.close}</Button></div>
  </div>
</Dialog>
