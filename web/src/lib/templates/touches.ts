import type { Api } from '$lib/api/client';

type Update = Api['HireUpdateResponse'];

/** How many hires would take something, keep what they have of their own, or need a decision; each counts where it is hardest. */
export function countFates(updates: Update[]) {
  const has = (u: Update, fate: string) => u.facts.some((f) => f.fate === fate);
  return {
    touched: updates.length,
    take: updates.filter((u) => has(u, 'take')).length,
    keep: updates.filter((u) => has(u, 'keep')).length,
    conflict: updates.filter((u) => has(u, 'conflict')).length
  };
}
