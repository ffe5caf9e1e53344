import { describe, expect, it } from 'vitest';
import { fits } from './fits';

describe('what fits what was typed', () => {
  it.each([
    ['Siân O’Driscoll', 'sian'],
    ['4 on, 4 off · A watch four-a', 'watch 4 on'],
    ['Tuấn Phạm', 'PHAM tuan'],
    ['Anything', '']
  ])('%s fits %s', (text, typed) => expect(fits(text, typed)).toBe(true));

  it('needs every word', () => expect(fits('Skerry Pier', 'skerry quay')).toBe(false));
});
