<script lang="ts">
  import type { Api } from '$lib/api/client';
  import Picker from '$lib/ui/Picker.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import TextField from '$lib/ui/TextField.svelte';
  import { keyFrom } from './spec';
  import { words } from './words';

  /** Asks what a new template is called, and by which code hires will refer to it. */
  interface Props {
    open: boolean;
    title: string;
    name?: string;
    taken: string[];
    /** Whether it is asked what it is for. */
    asks?: boolean;
    onname: (name: string, code: string, occasion: Api['Occasion']) => Promise<void>;
  }
  let { open = $bindable(), title, name: first = '', taken, asks = false, onname }: Props = $props();
  const w = $derived(words());
  let name = $derived(first);
  let typedCode = $state('');
  let error = $state('');
  let occasion = $state<Api['Occasion']>('arrival');
  const code = $derived(typedCode || keyFrom(name, taken));
</script>

<Dialog bind:open {title} focus="#template-name">
  <form
    class="px-5 pt-2 pb-5"
    onsubmit={async (e) => {
      e.preventDefault();
      error = '';
      if (name.trim() !== '') await onname(name.trim(), code, occasion).catch((reason: unknown) => (error = String(reason)));
    }}
  >
    <TextField id="template-name" label={w.naming.name} bind:value={name} maxlength={200} />
    <TextField
      id="template-code"
      label={w.naming.code}
      value={code}
      oninput={(e) => (typedCode = e.currentTarget.value)}
      maxlength={40}
      note={w.naming.codeNote}
      {error}
    />
    {#if asks}
      <Picker
        id="template-occasion"
        label={w.naming.occasion}
        value={occasion}
        choices={Object.entries(w.naming.occasions).map(([value, label]) => ({ value, label }))}
        onchange={(to) => (occasion = to as Api['Occasion'])}
      />
    {/if}
    <div class="flex justify-end gap-3 pt-2">
      <Button onclick={() => (open = false)}>{w.cancel}</Button>
      <Button type="submit" look="primary" disabled={name.trim() === '' || taken.includes(code)}>{w.naming.act}</Button>
    </div>
  </form>
</Dialog>
