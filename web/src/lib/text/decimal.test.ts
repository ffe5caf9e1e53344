import { describe, expect, it } from 'vitest';
import { decimal } from './decimal';

describe('a decimal as people type it', () => {
  it.each([
    ['17.40', 17.4],
    ['17,40', 17.4],
    ['17', 17],
    ['34,200.00', 34200],
    ['34.200,00', 34200],
    ['34,200', 34200],
    ['1 234,5', 1234.5]
  ])('%s is %d', (typed, value) => expect(decimal(typed)).toBe(value));

  it.each(['', 'abc', '1..2', '-3', '12a', '.'])('%s is none', (typed) => expect(decimal(typed)).toBeUndefined());
});
