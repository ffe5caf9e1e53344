<script lang="ts">
  import { page } from '$app/state';
  import RecordScreen from '$lib/record/RecordScreen.svelte';
</script>

{#key page.params.id}<RecordScreen id={page.params.id!} />{/key}
