import { afterEach, describe, expect, it, vi } from 'vitest';
import { onProveAgain, sendOnce, sendProved } from './client';

const save = () => new Request('http://fid.example/api/records/01890000-0000-7000-8000-000000000000', { method: 'PUT', body: '{}' });

describe('what is refused until somebody proves once more who they are', () => {
  const refusal = (code: string) =>
    new Response(JSON.stringify({ code }), { status: 403, headers: { 'Content-Type': 'application/problem+json' } });
  const sends = (...answers: Response[]) => {
    const bodies: string[] = [];
    const send = async (request: RequestInfo | URL) => {
      bodies.push(await (request as Request).text());
      return answers.shift()!;
    };
    return { bodies, send };
  };

  it('is sent again, whole, once they have', async () => {
    const { bodies, send } = sends(refusal('prove-again'), new Response(null, { status: 200 }));
    const forget = onProveAgain(() => Promise.resolve(true));
    expect((await sendProved(save(), send)).status).toBe(200);
    expect(bodies).toEqual(['{}', '{}']);
    forget();
  });

  it.each([
    ['they would not', 'prove-again', () => Promise.resolve(false)],
    ['it is another refusal', 'forbidden', () => Promise.reject(new Error('nobody is asked'))]
  ])('stays refused where %s', async (_, code, ask) => {
    const { bodies, send } = sends(refusal(code));
    const forget = onProveAgain(ask);
    const answer = await sendProved(save(), send);
    expect([answer.status, ((await answer.json()) as { code: string }).code, bodies.length]).toEqual([403, code, 1]);
    forget();
  });

  it('stays refused where nobody can be asked', async () => {
    expect((await sendProved(save(), sends(refusal('prove-again')).send)).status).toBe(403);
  });
});

describe('an act whose answer is not known', () => {
  afterEach(() => void vi.useRealTimers());

  it('is sent again under the same key, and no other', async () => {
    vi.useFakeTimers();
    const keys: (string | null)[] = [];
    const answers = [
      new Response(null, { status: 503, headers: { 'Retry-After': '2' } }),
      new TypeError('broken'),
      new Response(null, { status: 200 })
    ];
    const sent = sendOnce(save(), (request) => {
      keys.push((request as Request).headers.get('Idempotency-Key'));
      const answer = answers.shift()!;
      return answer instanceof Response ? Promise.resolve(answer) : Promise.reject(answer);
    });
    await vi.runAllTimersAsync();
    expect((await sent).status).toBe(200);
    expect(keys).toHaveLength(3);
    expect(new Set(keys).size).toBe(1);
    expect(keys[0]).toMatch(/^[0-9a-f-]{36}$/);
  });

  it('is given up after three tries, with the last answer', async () => {
    vi.useFakeTimers();
    let tries = 0;
    const sent = sendOnce(save(), () => (tries++, Promise.resolve(new Response(null, { status: 503 }))));
    await vi.runAllTimersAsync();
    expect((await sent).status).toBe(503);
    expect(tries).toBe(3);
  });

  it.each([
    ['PUT', 'records/a', true],
    ['POST', 'records/a/requests', true],
    ['POST', 'requests/a/agree', true],
    ['POST', 'requests/a/hand-on', true],
    ['POST', 'records/a/requests/route', false],
    ['POST', 'session/second-factor/prove', false],
    ['POST', 'records/a/changes/b/take-back', true],
    ['POST', 'hires', true],
    ['POST', 'hires/many', true],
    ['DELETE', 'hires/a/tasks/b/done', true],
    ['DELETE', 'people/merges/a', true],
    ['POST', 'lists/sites/entries', true],
    ['POST', 'lists/sites/entries/a/retire', true],
    ['DELETE', 'templates/a/draft', true],
    ['POST', 'templates/updates/a/undo', true],
    ['POST', 'templates/import', true],
    ['POST', 'fields/draft/publish', true],
    ['PUT', 'imports/a/cells', true],
    ['POST', 'hires/preview', false],
    ['POST', 'hires/known', false],
    ['POST', 'fields/draft/review', false],
    ['POST', 'templates/import/check', false],
    ['POST', 'templates/a/example', false],
    ['POST', 'records/a/fields/b/reveal', false],
    ['POST', 'intake/pull', false],
    ['POST', 'session', false],
    ['POST', 'files', false],
    ['GET', 'records/a', false]
  ])('%s %s has a key: %s', async (method, path, has) => {
    let key: string | null = null;
    await sendOnce(new Request(`http://fid.example/api/${path}`, { method }), (request) => {
      key = (request as Request).headers.get('Idempotency-Key');
      return Promise.resolve(new Response(null, { status: 200 }));
    });
    expect(key !== null).toBe(has);
  });

  it('is sent once where it has no key, or was answered', async () => {
    let tries = 0;
    const count = (status: number) => () => (tries++, Promise.resolve(new Response(null, { status })));
    await sendOnce(new Request('http://fid.example/api/records/x/readings', { method: 'POST', body: '{}' }), count(503));
    await sendOnce(save(), count(412));
    await sendOnce(new Request('http://fid.example/api/records/x'), count(503));
    expect(tries).toBe(3);
  });
});
