<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { text } from '$lib/text/index.svelte';
  import Given from './Given.svelte';
  import { words } from './words';

  /** What the record has by its job: nobody types it, and it follows when the job changes. */
  let { job }: { job: Api['JobFacts'] } = $props();
  const t = $derived(words().byJob);
  const from = $derived(text.t.source.job(job.code));
  const certificates = $derived(job.certificates.map((c) => (c.essential ? c.name : t.desirable(c.name))));
</script>

{#if job.family}<Given label={t.family} shown={job.family} {from} />{/if}
{#if job.classification}<Given label={t.classification} shown={job.classification} {from} />{/if}
{#if job.overtime}<Given label={t.overtime} shown={job.overtime[text.language]} {from} />{/if}
{#if job.safetyCritical}<Given label={t.safety} shown={t.yes} {from} />{/if}
{#if job.certificates.length > 0}<Given label={t.certificates} shown={certificates.join(', ')} {from} wide />{/if}
{#if job.items.length > 0}<Given label={t.items} shown={job.items.join(', ')} {from} wide />{/if}
