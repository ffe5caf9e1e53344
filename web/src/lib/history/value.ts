import type { Api } from '$lib/api/client';

type Value = Api['HistoryValue'];

const same = (a: Value, b: Value) => JSON.stringify(a.value) === JSON.stringify(b.value) && a.display === b.display;
const overlap = (a: Value, b: Value) => a.from <= (b.to ?? '9999') && b.from <= (a.to ?? '9999');

/**
 * Whether a value that is no longer believed in this form still is in another: a change from a day on ends the old value the day
 * before, and what was true until then stays true.
 */
export const isRestated = (value: Value, line: Value[]) =>
  value.knownTo !== null && line.some((other) => other.knownTo === null && same(value, other) && overlap(value, other));

/** What a change made of each field it touched: what stood there when it came, and what it put there. */
export function changed(change: Api['HistoryChange'], values: Value[]): { field: string; before?: Value; after?: Value }[] {
  return change.fields.map((field) => {
    const put = values.filter((v) => v.field === field && v.changeId === change.id);
    const ended = values.filter((v) => v.field === field && v.endedBy === change.id);
    const before = ended.find((e) => !put.some((p) => same(p, e) && p.from > e.from)) ?? ended[0];
    return { field, before, after: put.find((p) => !before || !same(p, before)) ?? (before && put.length === 0 ? undefined : put[0]) };
  });
}
