<script lang="ts">
  import type { Field } from '$lib/fields/configuration';
  import WhenInput from '$lib/fields/WhenInput.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import type { RoleDrafting } from './drafting.svelte';
  import type { RoleNames } from './naming';
  import type { Group } from './rights';
  import { words } from './words';

  /** Who is in this group, and what do they get by being in it? */
  interface Props {
    group: Group;
    drafting: RoleDrafting;
    names: RoleNames;
    onclose: () => void;
  }
  let { group, drafting, names, onclose }: Props = $props();
  const w = $derived(words().group);
  let open = $state(true);
  const at = $derived(drafting.content.groups.findIndex((g) => g.id === group.id));
  const fields = $derived(
    names.rights.sections.flatMap((s) =>
      s.fields
        .filter((f) => f.type !== 'rows' && f.type !== 'computed')
        .map((f): Field => ({
          key: f.key,
          label: { ...f.label },
          type: f.type,
          ...(f.list ? { list: f.list } : {}),
          ...(f.options.length > 0 ? { options: f.options.map((o) => ({ value: o.value, label: { ...o.label } })) } : {})
        }))
    )
  );
  const roles = $derived([...names.rights.roles.filter((r) => r.ships).map((r) => r.id), ...drafting.content.roles.map((r) => r.id)]);
  const edit = (change: Partial<Group>) => void drafting.editGroup(group.id, change);
</script>

<Dialog bind:open place="bottom" title={names.group(group.id)} {onclose} focus="#group-name">
  <div class="page grid gap-x-10 gap-y-3 pt-3 pb-5 lg:grid-cols-3">
    <div class="space-y-2">
      <TextField
        id="group-name"
        label={words().role.name}
        value={group.label.en ?? ''}
        maxlength={80}
        error={drafting.problem(`/groups/${at}/label`) ?? drafting.problem(`/groups/${at}/id`)}
        onchange={(e) => edit({ label: { ...group.label, en: e.currentTarget.value } })}
      />
      <TextField
        id="group-name-de"
        label={words().role.nameDe}
        value={group.label.de ?? ''}
        maxlength={80}
        onchange={(e) => edit({ label: { ...group.label, de: e.currentTarget.value } })}
      />
    </div>
    <WhenInput
      id="group-when"
      label={w.when}
      value={group.when}
      {fields}
      functions={names.rights.functions}
      otherwise={w.everybody}
      error={drafting.problem(`/groups/${at}/when`)}
      onchange={(when) => edit({ when })}
    />
    <fieldset>
      <legend class="text-soft pb-1 text-xs">{w.roles}</legend>
      {#each roles as role (role)}
        <label class="flex min-h-6 items-baseline gap-2"
          ><input
            type="checkbox"
            checked={group.roles?.includes(role) ?? false}
            onchange={(e) =>
              edit({
                roles: e.currentTarget.checked ? [...(group.roles ?? []), role] : (group.roles ?? []).filter((r) => r !== role)
              })}
          />{names.role(role)}</label
        >
      {/each}
    </fieldset>
    <div class="flex flex-wrap gap-3 lg:col-span-3">
      <Button onclick={onclose}>{words().role.close}</Button>
      <span class="flex-1"></span>
      <Button
        look="danger"
        onclick={() => {
          void drafting.removeGroup(group.id);
          onclose();
        }}>{w.remove}</Button
      >
    </div>
  </div>
</Dialog>
