import { describe, expect, it } from 'vitest';
import { clausesOf, formulaOfClauses } from './clauses';

describe('a condition of plain choices', () => {
  it('comes back from its formula, whatever its values hold', () => {
    const clauses = [
      { field: 'site', values: ['skerry', "O'Brien and sons", 'a\\b or c'] },
      { field: 'kind', values: ['seasonal'] }
    ];
    expect(clausesOf(formulaOfClauses(clauses))).toEqual(clauses);
  });

  it('is none where a formula says more than choices can', () => {
    for (const formula of ["site == 'a' or kind == 'b'", 'weekly_hours > 30', "not (site == 'a')", "site == 'a' and site == 'b'"])
      expect(clausesOf(formula), formula).toBeUndefined();
    expect(clausesOf(null)).toEqual([]);
  });
});
