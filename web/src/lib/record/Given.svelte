<script lang="ts">
  /** A value that follows from something else: on a dotted line, with a word on where it comes from. */
  let { label, shown, from, wide = false }: { label: string; shown: string; from: string; wide?: boolean } = $props();
</script>

<dl class={wide ? 'min-[28rem]:col-span-2' : ''}>
  <dt class="text-soft text-xs">{label}</dt>
  <dd class="border-soft text-soft min-h-8 border-b border-dotted px-0.5 py-1 font-medium">{shown}</dd>
  <dd class="text-2xs text-faint leading-4">{from}</dd>
</dl>
