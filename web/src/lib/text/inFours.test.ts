import { expect, test } from 'vitest';
import { inFours } from './inFours';

test.each([
  ['IE29AIBK93115212345678', 'IE29 AIBK 9311 5212 3456 78'],
  ['NO9386011117947', 'NO93 8601 1117 947'],
  ['IE29 AIBK 9311 5212 3456 78', 'IE29 AIBK 9311 5212 3456 78'],
  ['ABCD', 'ABCD'],
  ['', '']
])('%j is printed as %j', (account, printed) => expect(inFours(account)).toBe(printed));
