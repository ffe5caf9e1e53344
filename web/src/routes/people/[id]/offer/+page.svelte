<script lang="ts">
  import { page } from '$app/state';
  import OfferScreen from '$lib/offer/OfferScreen.svelte';
</script>

{#key page.params.id}<OfferScreen id={page.params.id!} />{/key}
