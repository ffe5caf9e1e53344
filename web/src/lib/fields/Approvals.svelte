<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Button from '$lib/ui/Button.svelte';
  import Dialog from '$lib/ui/Dialog.svelte';
  import ApprovalEditor from './ApprovalEditor.svelte';
  import ApprovalTrial from './ApprovalTrial.svelte';
  import type { Approval } from './configuration';
  import type { Drafting } from './drafting.svelte';
  import { sentenceOf } from './findings';
  import { words } from './words';

  /** Who has to agree to which changes: part of the draft of the fields, and made live with it. */
  let { open = $bindable(), drafting, server }: { open: boolean; drafting: Drafting; server: Api['FieldsResponse'] } = $props();
  const w = $derived(words().approvals);
  const approvals = $derived(drafting.configuration.approvals ?? []);
  const findings = $derived((drafting.review?.findings ?? []).filter((f) => f.part?.startsWith('approvals')));

  const put = (next: Approval[]) => void drafting.put({ ...drafting.configuration, approvals: next });
  const edit = (at: number, change: Partial<Approval>) => put(approvals.map((a, i) => (i === at ? { ...a, ...change } : a)));
  function add() {
    const taken = new Set(approvals.map((a) => a.id));
    let id = 'approval';
    for (let n = 2; taken.has(id); n++) id = `approval-${n}`;
    put([...approvals, { id, label: { [text.language]: w.fresh }, fields: [], by: ['manager'] }]);
  }
</script>

<Dialog bind:open title={w.title} place="bottom">
  <div class="page max-h-[75dvh] overflow-y-auto pb-4">
    <p class="text-soft max-w-prose pb-2 text-sm">{w.intro}</p>
    {#each findings as finding, i (i)}
      <p class="bg-rust-tint border-rust mb-1 border-l-4 px-4 py-1.5" role="alert">{sentenceOf(finding, drafting)}</p>
    {/each}
    {#each approvals as approval, i (approval.id)}
      <ApprovalEditor
        {approval}
        at={i}
        fields={drafting.configuration.fields}
        {server}
        edit={(change) => edit(i, change)}
        remove={() => put(approvals.filter((_, k) => k !== i))}
      />
    {:else}
      <p class="py-2">{w.none}</p>
    {/each}
    <div class="flex flex-wrap gap-3 pt-2"><Button onclick={add}>{w.add}</Button></div>
    {#if approvals.length > 0}<ApprovalTrial {drafting} />{/if}
  </div>
</Dialog>
