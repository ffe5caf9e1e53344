/** A condition of plain choices: all of the fields hold, each for one of its values. */
export interface Clause {
  field: string;
  values: string[];
}

const quote = (value: string) => `'${value.replaceAll('\\', '\\\\').replaceAll("'", "\\'")}'`;

/** The formula of plain choices; null for none. */
export function formulaOfClauses(clauses: Clause[]): string | null {
  const parts = clauses
    .filter((c) => c.field && c.values.length > 0)
    .map((c) => {
      const either = c.values.map((v) => `${c.field} == ${quote(v)}`).join(' or ');
      return c.values.length > 1 ? `(${either})` : either;
    });
  return parts.length === 0 ? null : parts.join(' and ');
}

const one = /^\s*([A-Za-z_]\w*)\s*==\s*'((?:[^'\\]|\\.)*)'\s*$/;

/** The parts of a formula between a word, which counts outside of texts and parentheses only. */
function split(formula: string, word: string): string[] {
  const parts: string[] = [];
  let [begin, depth, quoted] = [0, 0, false];
  for (let i = 0; i < formula.length; i++) {
    const c = formula[i];
    if (quoted) {
      if (c === '\\') i++;
      else if (c === "'") quoted = false;
    } else if (c === "'") quoted = true;
    else if (c === '(') depth++;
    else if (c === ')') depth--;
    else if (depth === 0 && formula.startsWith(word, i)) {
      parts.push(formula.slice(begin, i));
      begin = i + word.length;
      i = begin - 1;
    }
  }
  return [...parts, formula.slice(begin)];
}

/** The plain choices a formula is made of; undefined where it says more than choices can. */
export function clausesOf(formula: string | null): Clause[] | undefined {
  if (formula === null || formula.trim() === '') return [];
  const clauses: Clause[] = [];
  for (const part of split(formula, ' and ')) {
    const inner = /^\s*\((.*)\)\s*$/.exec(part)?.[1] ?? part;
    const found = split(inner, ' or ').map((p) => one.exec(p));
    if (found.some((f) => !f) || new Set(found.map((f) => f![1])).size !== 1) return undefined;
    clauses.push({ field: found[0]![1]!, values: found.map((f) => f![2]!.replace(/\\(.)/g, '$1')) });
  }
  return new Set(clauses.map((c) => c.field)).size === clauses.length ? clauses : undefined;
}
