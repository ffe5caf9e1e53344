<script lang="ts">
  import type { Api } from '$lib/api/client';
  import { words } from './words';

  /** What builds on what, from left to right. */
  let { rows }: { rows: Api['TemplateRow'][] } = $props();
  const [width, height, step] = [132, 24, 168];
  const placed = $derived.by(() => {
    const known = new Set(rows.map((r) => r.code));
    const childrenOf = (code: string | undefined) =>
      rows.filter((r) => (code === undefined ? r.buildsOn === null || !known.has(r.buildsOn) : r.buildsOn === code));
    const nodes: { row: Api['TemplateRow']; x: number; y: number; from?: { x: number; y: number } }[] = [];
    let next = 0;
    const place = (row: Api['TemplateRow'], depth: number, seen: Set<string>): number => {
      const children = seen.has(row.code) ? [] : childrenOf(row.code);
      const node: (typeof nodes)[number] = { row, x: depth * step, y: 0 };
      nodes.push(node);
      const ys = children.map((c) => place(c, depth + 1, new Set([...seen, row.code])));
      node.y = ys.length === 0 ? next++ * (height + 6) : (ys[0]! + ys.at(-1)!) / 2;
      for (const child of nodes) if (child.row.buildsOn === row.code) child.from = { x: node.x + width, y: node.y };
      return node.y;
    };
    for (const root of childrenOf(undefined)) place(root, 0, new Set());
    return { nodes, width: Math.max(...nodes.map((n) => n.x), 0) + width + 2, height: Math.max(next, 1) * (height + 6) };
  });
</script>

<figure class="overflow-x-auto" aria-label={words().map}>
  <svg width={placed.width} height={placed.height} class="block" role="group">
    {#each placed.nodes as node (node.row.code)}
      {#if node.from}
        <path
          d="M{node.from.x} {node.from.y + height / 2} C{node.from.x + 18} {node.from.y + height / 2} {node.x - 18} {node.y +
            height / 2} {node.x} {node.y + height / 2}"
          class="stroke-sea fill-none"
        />
      {/if}
      <a href="/templates/{node.row.code}" aria-label={node.row.name}>
        <rect
          x={node.x + 0.5}
          y={node.y + 0.5}
          {width}
          height={height - 1}
          rx="3"
          class="fill-sheet {node.row.opens ? 'stroke-ink' : 'stroke-soft'}"
          stroke-dasharray={node.row.opens ? undefined : '3 3'}
        />
        <text x={node.x + 8} y={node.y + 16} class="fill-ink text-xs"
          >{node.row.name.length > 20 ? `${node.row.name.slice(0, 19)}…` : node.row.name}</text
        >
      </a>
    {/each}
  </svg>
</figure>
