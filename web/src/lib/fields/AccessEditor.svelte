<script lang="ts">
  import { accessTo, type Access, type Field } from './configuration';
  import { words } from './words';

  /** Which role sees a field, and which edits it. */
  interface Props {
    field: Field;
    roles: string[];
    /** What the firm's own roles are called. */
    called: (role: string) => string;
    edit: (change: Partial<Field>) => void;
  }
  let { field, roles, called, edit }: Props = $props();
  const w = $derived(words().sheet);
  const accesses = $derived<Access[]>(field.type === 'computed' ? ['view', 'none'] : ['edit', 'ask', 'view', 'none']);
</script>

<fieldset class="col-span-full flex min-w-0 flex-wrap gap-x-5 gap-y-1 py-1">
  <legend class="text-soft float-left pr-3 text-xs">{w.access}</legend>
  {#each roles as role (role)}
    <label class="flex items-center gap-1.5 text-xs"
      >{called(role)}
      <select
        class="border-rule bg-sheet min-h-7 border-b font-semibold"
        value={accessTo(field, role)}
        onchange={(e) => edit({ access: { ...field.access, [role]: e.currentTarget.value as Access } })}
      >
        {#each accesses as access (access)}<option value={access}>{words().access[access]}</option>{/each}
      </select></label
    >
  {/each}
</fieldset>
