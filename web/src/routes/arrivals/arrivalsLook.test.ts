import { beforeEach, describe, expect, it, vi } from 'vitest';
import { keepLook, readLook, usualLook } from './arrivalsLook';

describe('the look of Arrivals', () => {
  const kept = new Map<string, string>();
  beforeEach(() => {
    kept.clear();
    vi.stubGlobal('localStorage', {
      getItem: (key: string) => kept.get(key) ?? null,
      setItem: (key: string, value: string) => kept.set(key, value)
    });
  });

  it('is there again, for each user their own', () => {
    keepLook('orla', { by: 'name', grouping: 'site', aligned: true });
    expect(readLook('orla')).toEqual({ by: 'name', grouping: 'site', aligned: true });
    expect(readLook('nils')).toEqual(usualLook);
  });

  it.each(['not JSON', 'null', '[]', '{"by":"height","grouping":7,"aligned":"yes"}'])('is the usual one where %s was kept', (text) => {
    kept.set('fid-arrivals-look orla', text);
    expect(readLook('orla')).toEqual(usualLook);
  });

  it('is the usual one in a browser that keeps nothing', () => {
    vi.stubGlobal('localStorage', {
      getItem: () => {
        throw new Error('denied');
      },
      setItem: () => {
        throw new Error('denied');
      }
    });
    keepLook('orla', usualLook);
    expect(readLook('orla')).toEqual(usualLook);
  });
});
