import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize, relative } from 'node:path';
import { expect, test } from 'vitest';

const lib = import.meta.dirname;
const sources = readdirSync(lib, { recursive: true, encoding: 'utf8' }).filter((f) => /\.(ts|svelte)$/.test(f) && !f.endsWith('.test.ts'));

/** The folder of the library that a file is in. */
const folderOf = (file: string) => file.split('/')[0]!;

function imports(file: string): string[] {
  const said = readFileSync(join(lib, file), 'utf8').matchAll(/(?:from|import\()\s*'([^']+)'/g);
  return [...said].flatMap(([, path]) =>
    path!.startsWith('$lib/')
      ? [path!.slice('$lib/'.length)]
      : path!.startsWith('.')
        ? [relative(lib, normalize(join(lib, dirname(file), path!)))]
        : []
  );
}

const arrows = new Map<string, Set<string>>();
for (const file of sources) {
  const from = folderOf(file);
  for (const to of imports(file).map(folderOf)) if (to !== from) arrows.set(from, (arrows.get(from) ?? new Set()).add(to));
}

test('every file of the library belongs to a folder', () => {
  expect(sources.filter((f) => !f.includes('/'))).toEqual([]);
});

test('the folders of the library depend on each other in one direction', () => {
  const behind = (folder: string, seen = new Set<string>()) => {
    for (const next of arrows.get(folder) ?? []) if (!seen.has(next)) behind(next, seen.add(next));
    return seen;
  };
  expect(arrows.get('record')?.has('api')).toBe(true);
  expect([...arrows.keys()].filter((folder) => behind(folder).has(folder))).toEqual([]);
});
