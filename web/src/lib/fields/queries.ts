/** The keys under which Fields keeps what it was told. */
export const fieldKeys = {
  all: ['fields'] as const,
  configuration: ['fields', 'all'] as const,
  filled: ['fields', 'filled'] as const,
  versions: ['fields', 'versions'] as const,
  compare: (earlier: number | undefined, later: number) => ['fields', 'compare', earlier, later] as const,
  coverage: (key: string, department: string, site: string) => ['fields', 'coverage', key, department, site] as const,
  tried: (...asked: unknown[]) => ['fields', 'try', ...asked] as const,
  result: (...asked: unknown[]) => ['fields', 'result', ...asked] as const
};
