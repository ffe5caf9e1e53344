/** A step of a task that is a group of them, as templates keep it. */
export interface Step {
  name: string;
  nameDe?: string;
}

const lines = (typed: string) =>
  typed
    .split('\n')
    .map((line) => line.trim())
    .filter(Boolean);

/** The steps that the properties of a task name. */
export const stepsOf = (properties: Record<string, unknown>): Step[] =>
  Array.isArray(properties.steps) ? (properties.steps as Step[]).filter((s) => typeof s?.name === 'string') : [];

/** The steps that were typed, one to a line, and beside each the line in German at the same place; none where nothing was typed. */
export function stepsFrom(typed: string, german: string): Step[] | undefined {
  const names = lines(typed);
  const inGerman = lines(german);
  if (names.length === 0) return undefined;
  return names.map((name, i) => (inGerman[i] && inGerman[i] !== name ? { name, nameDe: inGerman[i] } : { name }));
}

/** The steps as they are typed, in one language. A step without a German name stands there under the one it has. */
export const typedSteps = (steps: Step[], german: boolean): string =>
  german && steps.every((s) => s.nameDe === undefined) ? '' : steps.map((s) => (german ? (s.nameDe ?? s.name) : s.name)).join('\n');
