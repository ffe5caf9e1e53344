import type { Api } from '$lib/api/client';
import { session } from '$lib/api/session.svelte';

/** The hire that the tabs of a record lead to: the one under way, or else the one by which they settled. */
export const hireOf = ({ hire, settled }: Pick<Api['RecordResponse'], 'hire' | 'settled'>) =>
  hire ? { ...hire, settled: false } : settled && session.may('see hire') ? { ...settled, settled: true } : undefined;
