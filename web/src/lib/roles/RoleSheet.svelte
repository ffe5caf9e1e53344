<script lang="ts">
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import Compare from './Compare.svelte';
  import type { RoleDrafting } from './drafting.svelte';
  import type { RoleNames } from './naming';
  import ReachSelect from './ReachSelect.svelte';
  import type { Right, Role } from './rights';
  import { words } from './words';

  /** What does this role give, and to whom? */
  interface Props {
    role: Role;
    /** Whether it ships, and stays as it is. */
    ships: boolean;
    /** All roles, to be compared with. */
    everyRole: Role[];
    drafting: RoleDrafting;
    names: RoleNames;
    onlike: (role: Role) => void;
    onclose: () => void;
    mayEdit: boolean;
  }
  let { role, ships, everyRole, drafting, names, onlike, onclose, mayEdit }: Props = $props();
  const w = $derived(words().role);
  let open = $state(true);
  let picked = $state('');
  const at = $derived(drafting.content.roles.findIndex((r) => r.id === role.id));
  const fixed = $derived(ships || !mayEdit);
  const edit = (change: Partial<Role>) => void drafting.editRole(role.id, change);
  const put = (i: number, right: Right) => edit({ rights: role.rights.map((r, k) => (k === i ? right : r)) });

  function add(choice: string) {
    picked = '';
    const space = choice.indexOf(' ');
    if (space < 0) return;
    const right = { do: choice.slice(0, space), on: choice.slice(space + 1) };
    // What a role is for mostly reaches whom its fields reach.
    const reach = names.isOfPeople(right) ? (role.fields[0] ?? role.rights.find((r) => r.reach !== 'all')?.reach ?? 'all') : 'all';
    edit({ rights: [...role.rights, { ...right, reach }] });
  }
</script>

<Dialog bind:open place="bottom" title={names.role(role.id)} {onclose} focus={fixed ? undefined : '#role-name'}>
  <div class="page grid gap-x-10 gap-y-3 pt-3 pb-5 lg:grid-cols-[1fr_2fr]">
    <div class="space-y-2">
      {#if ships}
        <p class="text-soft">{w.readOnly}</p>
      {:else}
        <TextField
          id="role-name"
          label={w.name}
          value={role.label.en ?? ''}
          maxlength={80}
          disabled={fixed}
          error={drafting.problem(`/roles/${at}/label`)}
          onchange={(e) => edit({ label: { ...role.label, en: e.currentTarget.value } })}
        />
        <TextField
          id="role-name-de"
          label={w.nameDe}
          value={role.label.de ?? ''}
          maxlength={80}
          disabled={fixed}
          onchange={(e) => edit({ label: { ...role.label, de: e.currentTarget.value } })}
        />
        <p class="text-soft text-xs">{w.key} <code>{role.id}</code></p>
        {#if drafting.problem(`/roles/${at}/id`)}<p class="text-rust text-2xs font-semibold">{drafting.problem(`/roles/${at}/id`)}</p>{/if}
      {/if}
      <div>
        <h3 class="text-soft text-xs">{w.fields}</h3>
        <ul class="space-y-1 pt-1">
          {#each role.fields as reach, i (i)}
            <li class="flex items-center gap-2">
              <ReachSelect
                label={w.fields}
                value={reach}
                {names}
                disabled={fixed}
                onchange={(next) => edit({ fields: role.fields.map((f, k) => (k === i ? next : f)) })}
              />
              {#if !fixed}<button type="button" class="link text-xs" onclick={() => edit({ fields: role.fields.filter((_, k) => k !== i) })}
                  >{w.remove}</button
                >{/if}
            </li>
          {:else}<li>{w.fieldsNone}</li>{/each}
        </ul>
        {#if !fixed}<p class="pt-1">
            <button type="button" class="link text-xs" onclick={() => edit({ fields: [...role.fields, 'all'] })}>{w.addReach}</button>
          </p>{/if}
        <p class="text-soft pt-1 text-xs">{words().fieldsNote}</p>
      </div>
      <label class="flex min-h-6 items-baseline gap-2"
        ><input
          type="checkbox"
          checked={drafting.content.secondFactor?.includes(role.id) ?? false}
          disabled={!mayEdit}
          onchange={(e) => void drafting.askFactor(role.id, e.currentTarget.checked)}
        />{w.secondFactor}</label
      >
    </div>
    <div>
      <h3 class="text-soft text-xs">{w.rights}</h3>
      <ul class="columns-1 gap-x-10 pt-1 {role.rights.length > 8 ? 'xl:columns-2' : ''}">
        {#each role.rights as right, i (i)}
          {@const trouble = drafting.problem(`/roles/${at}/rights/${i}`)}
          <li class="break-inside-avoid py-0.5">
            <div class="flex flex-wrap items-center gap-x-2">
              <span class="min-w-0">{names.right(right)}</span>
              {#if names.isOfPeople(right)}
                <ReachSelect
                  label="{names.right(right)}: {w.of}"
                  value={right.reach}
                  {names}
                  disabled={fixed}
                  onchange={(reach) => put(i, { ...right, reach })}
                />
              {/if}
              {#if !fixed}<button
                  type="button"
                  class="link text-xs"
                  aria-label="{w.remove}: {names.right(right)}"
                  onclick={() => edit({ rights: role.rights.filter((_, k) => k !== i) })}>{w.remove}</button
                >{/if}
            </div>
            {#if trouble && !ships}<p class="text-rust text-2xs font-semibold">{trouble}</p>{/if}
          </li>
        {:else}<li class="text-soft">{w.none}</li>{/each}
      </ul>
      {#if !fixed}
        <div class="max-w-md pt-2">
          <Picker id="role-add-right" label={w.addRight} bind:value={picked} choices={names.choices} onchange={add} />
        </div>
      {/if}
    </div>
    <Compare {role} others={everyRole} {names} />
    <div class="flex flex-wrap gap-3 lg:col-span-2">
      <Button onclick={onclose}>{w.close}</Button>
      {#if mayEdit}
        <Button onclick={() => onlike(role)}>{w.like}</Button>
        {#if !ships}<span class="flex-1"></span>
          <Button
            look="danger"
            onclick={() => {
              void drafting.removeRole(role.id);
              onclose();
            }}>{w.removeRole}</Button
          >{/if}
      {/if}
    </div>
  </div>
</Dialog>
