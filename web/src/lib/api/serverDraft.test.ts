import { describe, expect, it } from 'vitest';
import { ApiProblem } from './client';
import { ServerDraft } from './serverDraft.svelte';

interface Saved {
  version: string;
  byName: string;
  words: string;
}

const conflict = (current: Saved) => new ApiProblem(412, 'changed-meanwhile', '', [], current);

/** A draft whose server answers when the test says so. */
class Letter extends ServerDraft<string, Saved> {
  readonly sent: { words: string; after: string | undefined; answer: (as: Saved | ApiProblem) => void }[] = [];
  looked: string[] = [];

  protected save(words: string, headers: { 'If-Match'?: string }) {
    return new Promise<Saved>((resolve, reject) =>
      this.sent.push({
        words,
        after: headers['If-Match'],
        answer: (as) => (as instanceof ApiProblem ? reject(as) : resolve(as))
      })
    );
  }
  protected contentOf(draft: Saved) {
    return draft.words;
  }
  look() {
    this.looked.push(this.content);
    return Promise.resolve();
  }
  open(draft: Saved | null, live: string) {
    this.begin(draft, live);
  }
}

const settled = () => new Promise((resolve) => setTimeout(resolve));
const saved = (version: string, words: string): Saved => ({ version, words, byName: 'Piet' });

describe('a draft that the server keeps', () => {
  it('begins from what is live, or from the draft there is', () => {
    const letter = new Letter('');
    letter.open(null, 'live');
    expect([letter.content, letter.isDraft, letter.version, letter.by]).toEqual(['live', false, undefined, '']);
    letter.open(saved('7', 'draft'), 'live');
    expect([letter.content, letter.isDraft, letter.version, letter.by]).toEqual(['draft', true, '7', 'Piet']);
  });

  it('saves one change after the other, each after the version before it, and of several at once only the last', async () => {
    const letter = new Letter('');
    letter.open(saved('1', 'a'), '');
    void letter.put('ab');
    await settled();
    expect(letter.saving).toBe(true);
    void letter.put('abc');
    void letter.put('abcd');
    await settled();
    expect(letter.sent.map((s) => [s.words, s.after])).toEqual([['ab', '1']]);
    letter.sent[0]!.answer(saved('2', 'ab'));
    await settled();
    expect(letter.sent.map((s) => [s.words, s.after])).toEqual([
      ['ab', '1'],
      ['abcd', '2']
    ]);
    letter.sent[1]!.answer(saved('3', 'abcd'));
    await settled();
    expect([letter.version, letter.saving, letter.content]).toEqual(['3', false, 'abcd']);
  });

  it.each([
    [true, 'ours', [['ours', '9']], []],
    [false, 'theirs', [], ['theirs']]
  ])('keeps what is typed when somebody else saved; ours over it: %s', async (keepOurs, content, sent, looked) => {
    const letter = new Letter('');
    letter.open(saved('1', 'a'), '');
    void letter.put('ours');
    await settled();
    letter.sent[0]!.answer(conflict(saved('9', 'theirs')));
    await settled();
    expect([letter.content, letter.other?.words, letter.saving]).toEqual(['ours', 'theirs', false]);
    void letter.settle(keepOurs);
    await settled();
    expect([letter.other, letter.content]).toEqual([undefined, content]);
    expect(letter.sent.slice(1).map((s) => [s.words, s.after])).toEqual(sent);
    expect(letter.looked).toEqual(looked);
  });
});
