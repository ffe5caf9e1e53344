<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import type { RoleNames } from './naming';
  import { givenOf, givenOfSection, type Role } from './rights';
  import { words } from './words';

  /** What each role gives, side by side: rights down, roles across. */
  interface Props {
    rights: Api['RolesResponse'];
    roles: Role[];
    names: RoleNames;
    onchoose: (role: string) => void;
  }
  let { rights, roles, names, onchoose }: Props = $props();
  const w = $derived(words());
  const isAll = (reaches: unknown[]) => reaches.includes('all');
  const held = (id: string) => rights.roles.find((r) => r.id === id)?.holders ?? 0;
  const label = (of: { en: string; de: string }) => (text.language === 'de' ? of.de : of.en);
  const parts = $derived([
    { title: w.ofPeople, rows: rights.rights.filter((r) => r.ofPeople) },
    { title: w.ofFirm, rows: rights.rights.filter((r) => !r.ofPeople) }
  ]);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
<div class="max-h-[70dvh] overflow-auto" tabindex="0" role="region" aria-label={w.sheet}>
  <table class="border-ink min-w-full border-t text-left">
    <thead class="bg-paper sticky top-0 z-10">
      <tr>
        <th scope="col" class="bg-paper text-soft sticky left-0 min-w-48 px-2 py-1.5 text-xs font-normal">{w.right}</th>
        {#each roles as role (role.id)}
          <th scope="col" class="px-2 py-1.5 align-bottom font-normal">
            <button type="button" class="text-left font-semibold hover:underline" onclick={() => onchoose(role.id)}
              ><bdi>{names.role(role.id)}</bdi></button
            >
            <span class="text-soft text-2xs block whitespace-nowrap">{w.holders(held(role.id))}</span>
          </th>
        {/each}
      </tr>
    </thead>
    {#each parts as part (part.title)}
      <tbody>
        <tr><th scope="rowgroup" colspan={roles.length + 1} class="border-rule border-t px-2 pt-3 pb-1 text-base">{part.title}</th></tr>
        {#each part.rows as right (`${right.do} ${right.on}`)}
          <tr class="border-rule hover:bg-sheet border-t">
            <th scope="row" class="bg-paper sticky left-0 px-2 py-1 font-normal">{label(right.label)}</th>
            {#each roles as role (role.id)}
              {@const given = givenOf(role, right)}
              <td class="px-2 py-1 text-xs">
                {#if isAll(given)}<span class="text-sea font-semibold">{right.ofPeople ? w.reaches.all : w.yes}</span>
                {:else if given.length > 0}{text.list([...new Set(given.map((r) => names.reach(r)))])}
                {:else}<span class="text-faint" aria-label={w.no}>–</span>{/if}
              </td>
            {/each}
          </tr>
        {/each}
      </tbody>
    {/each}
    <tbody>
      <tr><th scope="rowgroup" colspan={roles.length + 1} class="border-rule border-t px-2 pt-3 pb-1 text-base">{w.ofFields}</th></tr>
      {#each rights.sections as section (section.key)}
        <tr class="border-rule hover:bg-sheet border-t">
          <th scope="row" class="bg-paper sticky left-0 px-2 py-1 font-normal">{label(section.label)}</th>
          {#each roles as role (role.id)}
            {@const given = givenOfSection(role, section)}
            <td class="px-2 py-1 text-xs {given.seen > 0 && given.edited === given.of ? 'text-sea font-semibold' : ''}">
              {#if given.seen > 0}{w.section(given)}{:else}<span class="text-faint" aria-label={w.no}>–</span>{/if}
            </td>
          {/each}
        </tr>
      {/each}
      <tr class="border-rule border-t">
        <th scope="row" class="bg-paper text-soft sticky left-0 px-2 py-1 text-xs font-normal">{w.role.fields}</th>
        {#each roles as role (role.id)}
          <td class="text-soft px-2 py-1 text-xs">{text.list(role.fields.map((r) => names.reach(r)))}</td>
        {/each}
      </tr>
    </tbody>
  </table>
</div>
