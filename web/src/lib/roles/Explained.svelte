<script lang="ts">
  import { api, data } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import PersonPicker from '$lib/ui/PersonPicker.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import { createQuery } from '@tanstack/svelte-query';
  import { adminKeys } from '$lib/admin/queries';
  import type { RoleNames } from './naming';
  import { toldReach } from './rights';
  import { words } from './words';

  /** Who may do this with that person, and because of which right? */
  let { open = $bindable(), names }: { open: boolean; names: RoleNames } = $props();
  const w = $derived(words().explained);
  let what = $state('see record');
  let person = $state('');
  let name = $state('');
  const asked = $derived.by(() => {
    const action = what.slice(0, what.indexOf(' '));
    const on = what.slice(action.length + 1);
    const isThing = names.rights.rights.some((r) => r.do === action && r.on === on);
    return { action, ...(isThing ? { thing: on } : { field: on }), ...(person ? { person } : {}) };
  });
  const answer = createQuery(() => ({
    queryKey: adminKeys.explained(asked),
    queryFn: () => data(api.GET('/api/rights/explained', { params: { query: asked } })),
    enabled: open && what !== ''
  }));
  const choices = $derived(names.choices.filter((c) => !c.value.includes(' section:')));
</script>

<Dialog bind:open title={w.title} focus="#explained-what">
  <div class="px-5 pt-2 pb-5">
    <div class="grid gap-x-6 sm:grid-cols-2">
      <Picker id="explained-what" label={w.what} bind:value={what} {choices} />
      <PersonPicker
        id="explained-person"
        label={w.person}
        value={person}
        shown={name}
        note={person ? undefined : w.anybody}
        onchange={(value, called) => ([person, name] = [value, called])}
      />
    </div>
    {#if answer.error}<p role="alert" class="text-rust">{text.failure(answer.error)}</p>{/if}
    {#if answer.data}
      <p class="pt-2 text-base font-semibold" role="status">
        {answer.data.people.length === 0 ? w.nobody : w.may(answer.data.people.length)}
      </p>
      <ul class="pt-1">
        {#each answer.data.people as holder (holder.account)}
          <li class="border-rule border-t py-1">
            <strong><bdi>{holder.name}</bdi></strong>
            {#each holder.because as because, i (i)}
              <span class="text-soft block pl-4 text-xs"
                >{w.because(names.role(because.role), names.reach(toldReach(because.right.reach)))} · {names.right(
                  because.right
                )}{#if because.rule}&nbsp;· {w.byRule(because.rule.group === null ? null : names.group(because.rule.group))}{/if}</span
              >
            {/each}
          </li>
        {/each}
      </ul>
    {/if}
  </div>
</Dialog>
