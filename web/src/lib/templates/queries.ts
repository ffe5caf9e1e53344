import { api, data } from '$lib/api/client';
import { session } from '$lib/api/session.svelte';
import { createQuery } from '@tanstack/svelte-query';

/** The keys under which Templates keeps what it was told. */
export const templateKeys = {
  all: ['templates'] as const,
  one: (code: string) => ['templates', 'of', code] as const,
  editing: ['templates', 'editing'] as const,
  shared: ['templates', 'shared'] as const,
  ready: ['ready-tasks'] as const,
  runs: ['templates', 'runs'] as const,
  imported: (looked: string) => ['templates', 'import', looked] as const,
  people: (when: unknown) => ['templates', 'people', when] as const,
  updates: (code: string) => ['templates', 'of', code, 'updates'] as const,
  versions: (code: string) => ['templates', 'of', code, 'versions'] as const,
  compare: (code: string, ...compared: unknown[]) => ['templates', 'of', code, 'compare', ...compared] as const,
  touches: (code: string, version: string | undefined) => ['templates', 'of', code, 'touches', version] as const
};

/** What the editor of templates offers: fields, functions, stages. */
export const editingQuery = () =>
  createQuery(() => ({
    queryKey: templateKeys.editing,
    queryFn: () => data(api.GET('/api/templates/editing')),
    staleTime: 60_000,
    enabled: session.may('edit template')
  }));

/** The firm's shared tasks, and the templates that have them. */
export const sharedTasksQuery = () =>
  createQuery(() => ({
    queryKey: templateKeys.shared,
    queryFn: () => data(api.GET('/api/shared-tasks')),
    enabled: session.may('edit template')
  }));
