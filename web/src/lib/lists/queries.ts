import { api, data, type Api } from '$lib/api/client';
import { named } from '$lib/text/named';
import { createQuery } from '@tanstack/svelte-query';

/** The keys under which the lists, their entries and what is worked out of them are kept. */
export const listKeys = {
  all: ['lists'] as const,
  summaries: ['lists', 'all'] as const,
  options: ['lists', 'options'] as const,
  setup: ['lists', 'setup'] as const,
  number: (pattern: unknown) => ['lists', 'setup', 'number', pattern] as const,
  starters: (chosen: unknown) => ['lists', 'starters', 'calendars', chosen] as const,
  find: (list: string, asked: string) => ['lists', 'find', list, asked] as const,
  entries: (list: string, asked: string, retired: boolean) => ['lists', list, 'entries', asked, retired] as const,
  entry: (list: string, code: string) => ['entry', list, code] as const,
  history: (list: string, code: string) => ['lists', list, code, 'history'] as const,
  users: (list: string, code: string) => ['lists', list, code, 'users'] as const,
  preview: (what: 'calendar' | 'periods' | 'slip' | 'effects' | 'weeks', ...asked: unknown[]) => ['preview', what, ...asked] as const,
  previews: ['preview'] as const
};

/** What pickers offer. */
export const optionsQuery = () =>
  createQuery(() => ({ queryKey: listKeys.options, queryFn: () => data(api.GET('/api/options')), staleTime: 60_000 }));

/** All lists with their columns. */
export const listsQuery = () => createQuery(() => ({ queryKey: listKeys.summaries, queryFn: () => data(api.GET('/api/lists')) }));

/** A code's name among options; the code itself where it is not known. */
export const nameOf = (options: Api['ListOption'][], list: string, code: string) => {
  const found = options.find((o) => o.list === list && o.code === code);
  return found ? named(found) : code;
};

export const entryPath = (list: string, code: string) => `/lists/${list}/${encodeURIComponent(code)}`;
