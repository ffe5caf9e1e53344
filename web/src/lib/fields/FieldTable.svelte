<script lang="ts">
  import { createQuery } from '@tanstack/svelte-query';
  import { api, data, type Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import { accessTo, copies, keyFrom, moved, nameOf, sectionMoved, type Access, type Field } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import { kindOf, requiredOf } from './summary';
  import { roleName } from './roleName';
  import { words } from './words';
  import { fieldKeys } from './queries';

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
  const next: Record<Access, Access> = { edit: 'ask', ask: 'view', view: 'none', none: 'edit' };
  const marks: Record<Access, string> = { edit: '■', ask: '◧', view: '□', none: '–' };

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
  let naming = $state<string>();
  let draggedSection = $state<string>();
  const sections = $derived(drafting.configuration.sections);
  const heading = (key: string) => requestAnimationFrame(() => document.getElementById(`section-${key}`)?.focus());

  /** Adds a section at the end, to be named at once. */
  export function addSection() {
    const key = keyFrom(w.newSection, sections);
    void drafting.put({ ...drafting.configuration, sections: [...sections, { key, label: { en: w.newSection } }] });
    naming = key;
    requestAnimationFrame(() => document.getElementById(`section-name-${key}`)?.focus());
  }
  function rename(key: string, label: string) {
    naming = undefined;
    if (label.trim() !== '')
      void drafting.put({
        ...drafting.configuration,
        sections: sections.map((s) => (s.key === key ? { ...s, label: { ...s.label, [text.language]: label.trim() } } : s))
      });
    heading(key);
  }
  function moveSection(key: string, by: number) {
    void drafting.put(sectionMoved(drafting.configuration, key, by));
    heading(key);
  }
  function copySection(key: string) {
    const section = sections.find((s) => s.key === key)!;
    const copy = { key: keyFrom(key, sections), label: { ...section.label, [text.language]: w.copyOf(nameOf(section, text.language)) } };
    const at = sections.indexOf(section) + 1;
    void drafting.put({
      sections: [...sections.slice(0, at), copy, ...sections.slice(at)],
      fields: [
        ...fields,
        ...copies(
          fields.filter((f) => f.section === key),
          fields,
          copy.key,
          w.copyOf
        )
      ]
    });
    heading(copy.key);
  }
  function removeSection(key: string) {
    void drafting.put({ ...drafting.configuration, sections: sections.filter((s) => s.key !== key) });
  }
  function dropSection(before: string) {
    const from = sections.findIndex((s) => s.key === draggedSection);
    const to = sections.findIndex((s) => s.key === before);
    if (from < 0 || to < 0) return;
    const next = [...sections];
    const [taken] = next.splice(from, 1);
    next.splice(to, 0, taken!);
    void drafting.put({ ...drafting.configuration, sections: next });
  }
  // Counted apart: the fields are there to be edited before everybody's values are counted.
  const counted = createQuery(() => ({ queryKey: fieldKeys.filled, queryFn: () => data(api.GET('/api/fields/filled')) }));
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
        {#each server.roles as role (role)}<th class="text-center font-normal">{roleName(role, server.roleLabels)}</th>{/each}
        <th class="pl-4 font-normal">{w.required}</th>
        <th class="font-normal">{w.filled}</th>
      </tr>
    </thead>
    {#each drafting.configuration.sections as section (section.key)}
      {@const rows = shown.filter((f) => f.section === section.key)}
      {#if rows.length > 0 || (shown.length === fields.length && !fields.some((f) => f.section === section.key))}
        <tbody
          ondragover={(e) => dragged && e.preventDefault()}
          ondrop={(e) => {
            e.preventDefault();
            if (dragged) put(dragged, undefined, section.key);
            dragged = undefined;
          }}
        >
          <tr
            class="group"
            draggable="true"
            ondragstart={(e) => {
              draggedSection = section.key;
              e.dataTransfer?.setData('text/plain', section.key);
            }}
            ondragend={() => (draggedSection = undefined)}
            ondragover={(e) => draggedSection && e.preventDefault()}
            ondrop={(e) => {
              if (!draggedSection) return;
              e.preventDefault();
              e.stopPropagation();
              dropSection(section.key);
              draggedSection = undefined;
            }}
          >
            <th colspan={4 + server.roles.length} scope="rowgroup" class="border-ink border-b pt-3 pb-1 text-base">
              {#if naming === section.key}
                <input
                  id="section-name-{section.key}"
                  aria-label={w.sectionName}
                  maxlength="100"
                  value={nameOf(section, text.language)}
                  class="border-ink w-64 border-b bg-transparent"
                  onfocus={(e) => e.currentTarget.select()}
                  onblur={(e) => naming === section.key && rename(section.key, e.currentTarget.value)}
                  onkeydown={(e) => {
                    if (e.key === 'Enter') rename(section.key, e.currentTarget.value);
                    else if (e.key === 'Escape') {
                      e.stopPropagation();
                      naming = undefined;
                      heading(section.key);
                    }
                  }}
                />
              {:else}
                <button
                  type="button"
                  id="section-{section.key}"
                  class="hover:underline"
                  title={w.moveSection}
                  onclick={() => {
                    naming = section.key;
                    requestAnimationFrame(() => document.getElementById(`section-name-${section.key}`)?.focus());
                  }}
                  onkeydown={(e) => {
                    if (!e.altKey || (e.key !== 'ArrowDown' && e.key !== 'ArrowUp')) return;
                    e.preventDefault();
                    e.stopPropagation();
                    moveSection(section.key, e.key === 'ArrowDown' ? 1 : -1);
                  }}>{nameOf(section, text.language)}</button
                >
                <span class="ml-3 font-sans text-xs font-normal opacity-0 group-focus-within:opacity-100 group-hover:opacity-100">
                  <button type="button" class="link px-1" onclick={() => copySection(section.key)}>{w.copySection}</button>
                  {#if rows.length === 0}<button type="button" class="link px-1" onclick={() => removeSection(section.key)}
                      >{w.removeSection}</button
                    >{/if}
                </span>
              {/if}
            </th>
          </tr>
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
                {@const access = accessTo(field, role)}
                <td class="text-center">
                  <button
                    type="button"
                    class="hover:bg-band min-h-6 w-8 {access === 'none' ? 'text-faint' : 'text-ink'}"
                    aria-label={w.accessOf(roleName(role, server.roleLabels), name, w.access[access])}
                    onclick={(e) => {
                      e.stopPropagation();
                      const wanted = field.type === 'computed' ? (access === 'none' ? 'view' : 'none') : next[access];
                      drafting.edit(field.key, { access: { ...field.access, [role]: wanted } });
                    }}>{marks[access]}</button
                  >
                </td>
              {/each}
              <td class="truncate pl-4 text-xs {field.required && field.required !== 'never' ? '' : 'text-soft'}"
                >{requiredOf(field, server.stages, w)}</td
              >
              <td class="text-xs">
                {#if field.type !== 'computed'}
                  <!-- Rows are filled record by record. -->
                  <svelte:element
                    this={field.type === 'rows' ? 'span' : 'a'}
                    href={field.type === 'rows' ? undefined : `/fields/${field.key}`}
                    class="inline-block w-20 {field.type === 'rows' ? '' : 'hover:underline'}"
                    ><strong class="text-sm">{filled}</strong> {w.of(active)}</svelte:element
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
