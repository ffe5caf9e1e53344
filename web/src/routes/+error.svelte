<script lang="ts">
  import { text } from '$lib/text/index.svelte';
</script>

<div class="page py-8">
  <h1 class="text-xl">{text.t.common.notFound}</h1>
  <p class="mt-2"><a class="link" href="/">{text.t.common.home}</a></p>
</div>
