<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { moved, nameOf, type Access, type Field } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import { kindOf, requiredOf } from './summary';
  import { words } from './words';

  /** All fields by section: what each is, who sees and who edits it, when it is needed, and how complete it is. */
  interface Props {
    drafting: Drafting;
    server: Api['FieldsResponse'];
    shown: Field[];
    selected: string | undefined;
    onselect: (key: string) => void;
    onopen: (key: string) => void;
  }
  let { drafting, server, shown, selected, onselect, onopen }: Props = $props();
  const w = $derived(words());
  let dragged = $state<string>();
  const fields = $derived(drafting.configuration.fields);
  const trapped = $derived(new Set(drafting.review?.findings.map((f) => f.fields[0]) ?? []));
  const next: Record<Access, Access> = { edit: 'view', view: 'none', none: 'edit' };
  const marks = { edit: '■', view: '□', none: '–' };

  function put(key: string, before: string | undefined, section: string) {
    void drafting.put({ ...drafting.configuration, fields: moved(fields, key, before, section) });
  }
  /** One place up or down within its section. */
  export function move(key: string, by: number) {
    const field = drafting.find(key);
    if (!field) return;
    const inSection = fields.filter((f) => f.section === field.section);
    const at = inSection.findIndex((f) => f.key === key);
    const before = by < 0 ? inSection[at - 1] : inSection[at + 2];
    if ((by < 0 && at > 0) || (by > 0 && at < inSection.length - 1)) put(key, before?.key, field.section ?? '');
    requestAnimationFrame(() => document.getElementById(`row-${key}`)?.focus());
  }
  // Counted apart: the fields are there to be edited before everybody's values are counted.
  const counted = createQuery(() => ({ queryKey: ['fields', 'filled'], queryFn: () => data(api.GET('/api/fields/filled')) }));
  const active = $derived(counted.data?.active ?? 0);
</script>

<!-- svelte-ignore a11y_no_noninteractive_tabindex (it scrolls on narrow screens, so it must be reachable) -->
<div class="overflow-x-auto" tabindex="0" role="region" aria-label={w.title}>
  <table class="narrow w-full min-w-[58rem] table-fixed text-left">
    <colgroup>
      <col class="w-[15rem]" /><col class="w-[12rem]" />{#each server.roles as role (role)}<col class="w-[4.2rem]" />{/each}<col /><col
        class="w-[12rem]"
      />
    </colgroup>
    <thead class="bg-paper text-soft sticky top-0 text-xs">
      <tr>
        <th class="py-1.5 pl-2.5 font-normal">{w.field}</th>
        <th class="font-normal">{w.kind}</th>
        {#each server.roles as role (role)}<th class="text-center font-normal">{w.roles[role] ?? role}</th>{/each}
        <th class="pl-4 font-normal">{w.required}</th>
        <th class="font-normal">{w.filled}</th>
      </tr>
    </thead>
    {#each drafting.configuration.sections as section (section.key)}
      {@const rows = shown.filter((f) => f.section === section.key)}
      {#if rows.length > 0}
        <tbody
          ondragover={(e) => dragged && e.preventDefault()}
          ondrop={(e) => {
            e.preventDefault();
            if (dragged) put(dragged, undefined, section.key);
            dragged = undefined;
          }}
        >
          <tr
            ><th colspan={4 + server.roles.length} scope="rowgroup" class="border-ink border-b pt-3 pb-1 text-base"
              >{nameOf(section, text.language)}</th
            ></tr
          >
          {#each rows as field (field.key)}
            {@const name = nameOf(field, text.language)}
            {@const filled = counted.data?.filled[field.key] ?? 0}
            <tr
              class="border-rule border-b {selected === field.key ? 'bg-sheet outline-sea outline-2 -outline-offset-2' : ''}"
              aria-selected={selected === field.key}
              draggable="true"
              ondragstart={(e) => {
                dragged = field.key;
                e.dataTransfer?.setData('text/plain', field.key);
              }}
              ondrop={(e) => {
                e.preventDefault();
                e.stopPropagation();
                if (dragged && dragged !== field.key) put(dragged, field.key, section.key);
                dragged = undefined;
              }}
              onclick={() => onselect(field.key)}
              ondblclick={() => onopen(field.key)}
            >
              <th scope="row" class="truncate py-1.5 pl-2.5 font-semibold">
                <button
                  type="button"
                  id="row-{field.key}"
                  class="max-w-full scroll-mt-12 truncate text-left hover:underline {trapped.has(field.key) ? 'text-ochre' : ''}"
                  onfocus={(e) => e.currentTarget.matches(':focus-visible') && onselect(field.key)}
                  onclick={() => onopen(field.key)}>{name}</button
                >
              </th>
              <td class="text-soft truncate pr-2 text-xs">{kindOf(field, fields, w)}</td>
              {#each server.roles as role (role)}
                {@const access = field.access?.[role] ?? 'none'}
                <td class="text-center">
                  <button
                    type="button"
                    class="hover:bg-band min-h-6 w-8 {access === 'none' ? 'text-faint' : 'text-ink'}"
                    aria-label={w.accessOf(w.roles[role] ?? role, name, w.access[access])}
                    onclick={(e) => {
                      e.stopPropagation();
                      drafting.edit(field.key, { access: { ...field.access, [role]: next[access] } });
                    }}>{marks[access]}</button
                  >
                </td>
              {/each}
              <td class="truncate pl-4 text-xs {field.required && field.required !== 'never' ? '' : 'text-soft'}"
                >{requiredOf(field, server.stages, w)}</td
              >
              <td class="text-xs">
                {#if field.type !== 'computed'}
                  <a href="/fields/{field.key}" class="inline-block w-20 hover:underline"
                    ><strong class="text-sm">{filled}</strong> {w.of(active)}</a
                  >
                  <svg viewBox="0 0 100 6" preserveAspectRatio="none" class="inline h-1.5 w-24" aria-hidden="true">
                    <line x1="0" y1="3" x2="100" y2="3" class="stroke-rule" stroke-width="2" />
                    <rect x="0" y="0" height="6" rx="1" width={active ? (100 * filled) / active : 0} class="fill-sea" />
                  </svg>
                {/if}
              </td>
            </tr>
          {/each}
        </tbody>
      {/if}
    {/each}
  </table>
</div>
