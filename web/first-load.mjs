// Prints how much compressed script Arrivals needs before it shows anything: what the page names, the route's own
// entry, and what those import at once.
import { readFileSync, readdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { brotliCompressSync, constants } from 'node:zlib';

const build = new URL('build/', import.meta.url).pathname;
const page = readFileSync(join(build, 'index.html'), 'utf8');
const entries = [...page.matchAll(/["']\/?(?:\.\/)?(_app\/immutable\/[^"']+\.js)["']/g)].map((m) => m[1]);
const nodes = readdirSync(join(build, '_app/immutable/nodes')).map((f) => `_app/immutable/nodes/${f}`);
// The layout's node and that of Arrivals; told apart by what only they hold.
entries.push(...nodes.filter((n) => /nodes\/0\./.test(n) || readFileSync(join(build, n), 'utf8').includes('/api/arrivals/week.pdf')));

const seen = new Set();
const visit = (file) => {
  if (seen.has(file)) return;
  seen.add(file);
  const code = readFileSync(join(build, file), 'utf8');
  for (const m of code.matchAll(
    /(?:^|[;}\n])\s*(?:import|export)\b[^;'"()]*?from\s*["']([^"']+)["']|(?:^|[;}\n])\s*import\s*["']([^"']+)["']/g
  ))
    visit(join(dirname(file), m[1] ?? m[2]));
};
entries.forEach(visit);
// As the server sends it: brotli at its fastest.
const size = [...seen].reduce(
  (sum, file) => sum + brotliCompressSync(readFileSync(join(build, file)), { params: { [constants.BROTLI_PARAM_QUALITY]: 1 } }).length,
  0
);
console.log(`| first load of Arrivals, compressed script (${seen.size} files) | ${(size / 1000).toFixed(0)} kB | at most 130 kB |`);
