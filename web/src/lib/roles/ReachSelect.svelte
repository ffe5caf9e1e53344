<script lang="ts">
  import type { RoleNames } from './naming';
  import { keyOf, reachOf, type Reach } from './rights';

  /** Whom a right reaches. */
  interface Props {
    label: string;
    value: Reach;
    names: RoleNames;
    disabled?: boolean;
    onchange: (reach: Reach) => void;
  }
  let { label, value, names, disabled = false, onchange }: Props = $props();
</script>

<select
  aria-label={label}
  value={keyOf(value)}
  {disabled}
  class="border-rule bg-sheet min-h-8 max-w-full rounded border px-1 disabled:border-transparent disabled:bg-transparent"
  onchange={(e) => onchange(reachOf(e.currentTarget.value))}
>
  {#each names.reaches as reach (reach.value)}<option value={reach.value}>{reach.label}</option>{/each}
</select>
