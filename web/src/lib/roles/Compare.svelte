<script lang="ts">
  import Picker from '$lib/ui/Picker.svelte';
  import type { RoleNames } from './naming';
  import { onlyIn, type Role } from './rights';
  import { words } from './words';

  /** What does one role give that another does not? */
  let { role, others, names }: { role: Role; others: Role[]; names: RoleNames } = $props();
  const w = $derived(words().compare);
  let chosen = $state('');
  const other = $derived(others.find((r) => r.id === chosen));
</script>

<section class="lg:col-span-2" aria-label={w.title}>
  <div class="max-w-xs">
    <Picker
      id="role-compare"
      label={w.title}
      bind:value={chosen}
      choices={others.filter((r) => r.id !== role.id).map((r) => ({ value: r.id, label: names.role(r.id) }))}
    />
  </div>
  {#if other}
    <div class="grid gap-x-8 lg:grid-cols-2">
      {#each [[role, other], [other, role]] as [one, than] (one!.id)}
        <div>
          <h4 class="text-sm font-semibold">{w.only(names.role(one!.id))}</h4>
          <ul class="text-sm">
            {#each onlyIn(one!, than!) as right, i (i)}
              <li>{names.right(right)} <span class="text-soft text-xs">{names.reach(right.reach)}</span></li>
            {:else}<li class="text-soft">{w.nothing}</li>{/each}
          </ul>
        </div>
      {/each}
    </div>
  {/if}
</section>
