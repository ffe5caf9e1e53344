import { session } from '$lib/api/session.svelte';
import { expect, test, vi } from 'vitest';
import { language, wordsOf } from './language.svelte';

const place = () => ({
  en: vi.fn(() => Promise.resolve({ title: 'Lists' })),
  de: vi.fn(() => Promise.resolve({ title: 'Listen' }))
});

test('a place fetches its words in the one language that is read, and all places follow together when that changes', async () => {
  const reads = vi.spyOn(session, 'user', 'get').mockReturnValue({ language: 'en' } as never);
  await language.follow();
  const [lists, fields] = [place(), place()];
  const words = await wordsOf(lists);
  expect(words().title).toBe('Lists');
  expect(lists.de).not.toHaveBeenCalled();

  // Somebody changes their language; a place that is just being opened must not be left behind.
  let arrive = () => {};
  lists.de.mockReturnValue(new Promise((done) => (arrive = () => done({ title: 'Listen' }))));
  reads.mockReturnValue({ language: 'de' } as never);
  const followed = language.follow();
  expect(words().title).toBe('Lists');
  const opened = await wordsOf(fields);
  expect(opened().title).toBe('Lists');
  arrive();
  await followed;
  expect([words().title, opened().title, language.spoken]).toEqual(['Listen', 'Listen', 'de']);

  // What was fetched once is there.
  reads.mockReturnValue({ language: 'en' } as never);
  await language.follow();
  expect([words().title, lists.en.mock.calls.length]).toEqual(['Lists', 1]);
});

test('a change of mind while words are fetched counts', async () => {
  const reads = vi.spyOn(session, 'user', 'get').mockReturnValue({ language: 'en' } as never);
  await language.follow();
  const lists = place();
  const words = await wordsOf(lists);
  let arrive = () => {};
  lists.de.mockReturnValue(new Promise((done) => (arrive = () => done({ title: 'Listen' }))));
  reads.mockReturnValue({ language: 'de' } as never);
  const german = language.follow();
  reads.mockReturnValue({ language: 'en' } as never);
  await language.follow();
  arrive();
  await german;
  expect(words().title).toBe('Lists');
});
