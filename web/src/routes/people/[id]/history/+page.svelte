<script lang="ts">
  import { page } from '$app/state';
  import HistoryScreen from '$lib/history/HistoryScreen.svelte';
</script>

{#key page.params.id}<HistoryScreen id={page.params.id!} />{/key}
