<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Picker from '$lib/ui/Picker.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import Condition from './Condition.svelte';
  import type { TemplateEditing } from './editing.svelte';
  import { words } from './words';

  /** What a template is called and builds on; of an add-on where it applies and in which order. */
  interface Props {
    editing: TemplateEditing;
    templates: Api['TemplateRow'][];
    offered: Api['TemplateField'][];
    functions: string[];
    mayEdit: boolean;
  }
  let { editing, templates, offered, functions, mayEdit }: Props = $props();
  const w = $derived(words());
  const spec = $derived(editing.spec);
  let name = $derived(spec.name);
  let nameDe = $derived(spec.nameDe ?? '');
  let ordering = $state<string>();
  const order = $derived(ordering ?? String(spec.order));
  const error = (part: string) => {
    const f = (editing.example?.findings ?? []).find((f) => f.part === part);
    return f ? text.problem({ pointer: '', code: f.code, detail: f.message }) : undefined;
  };
</script>

<h2 class="pb-1 text-lg">{w.parts.about}</h2>
<fieldset disabled={!mayEdit} class="max-w-[40rem]">
  <TextField
    id="about-name"
    label={w.about.name}
    value={name}
    maxlength={200}
    error={error('name')}
    oninput={(e) => {
      name = e.currentTarget.value;
      void editing.put({ ...spec, name });
    }}
  />
  <TextField
    id="about-name-de"
    label={w.about.nameDe}
    value={nameDe}
    maxlength={200}
    error={error('nameDe')}
    oninput={(e) => {
      nameDe = e.currentTarget.value;
      void editing.put({ ...spec, nameDe: nameDe || null });
    }}
  />
  {#if spec.addOn}
    <div class="w-40">
      <TextField
        id="about-order"
        label={w.about.order}
        note={w.about.orderNote}
        inputmode="numeric"
        value={order}
        error={error('order')}
        oninput={(e) => {
          const typed = (ordering = e.currentTarget.value).trim();
          if (/^-?\d{1,6}$/.test(typed)) void editing.put({ ...spec, order: Number(typed) });
        }}
      />
    </div>
    <Condition
      id="when"
      title={w.when.title}
      always={w.when.always}
      when={spec.when}
      finding={(editing.example?.findings ?? []).find((f) => f.part === 'when')}
      whom
      {offered}
      {functions}
      {mayEdit}
      onchange={(when) => void editing.put({ ...spec, when })}
    />
  {:else}
    <Picker
      id="about-builds-on"
      label={w.about.buildsOn}
      value={spec.buildsOn ?? ''}
      choices={[
        { value: '', label: w.about.nothing },
        ...templates
          .filter(
            (t) => !t.isAddOn && t.version > 0 && !t.retired && t.code !== editing.code && t.occasion === (spec.occasion ?? 'arrival')
          )
          .map((t) => ({ value: t.code, label: t.name }))
      ]}
      error={error('buildsOn')}
      onchange={(v) => void editing.put({ ...spec, buildsOn: v || null })}
    />
    <label class="flex items-center gap-2 py-1"
      ><input type="checkbox" checked={spec.opens} onchange={(e) => void editing.put({ ...spec, opens: e.currentTarget.checked })} />{w
        .about.opens}</label
    >
  {/if}
</fieldset>
