import { api, data } from '$lib/api/client';
import { session } from '$lib/api/session.svelte';
import { createQuery } from '@tanstack/svelte-query';

/** What the editor of templates offers: fields, functions, stages. */
export const editingQuery = () =>
  createQuery(() => ({
    queryKey: ['templates', 'editing'],
    queryFn: () => data(api.GET('/api/templates/editing')),
    staleTime: 60_000,
    enabled: session.coordinates
  }));

/** The firm's shared tasks, and the templates that have them. */
export const sharedTasksQuery = () =>
  createQuery(() => ({
    queryKey: ['templates', 'shared'],
    queryFn: () => data(api.GET('/api/shared-tasks')),
    enabled: session.coordinates
  }));
