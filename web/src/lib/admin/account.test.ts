import { ApiProblem, api, type Api } from '$lib/api/client';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { AccountForm } from './account.svelte';

const detail = {
  version: '"7"',
  sessions: [],
  account: {
    id: 'a1',
    name: 'Nils Aakre',
    email: 'nils@halyard.example',
    state: 'active',
    roles: ['owner'],
    teams: ['stores'],
    language: 'de',
    employment: 'e1',
    person: 'Nils Aakre'
  }
} as unknown as Api['AccountDetail'];
const answer = (status: number, error?: unknown, body?: unknown) =>
  ({ data: body, error, response: new Response(null, { status }) }) as never;

beforeEach(() => void vi.stubGlobal('navigator', { language: 'en-GB' }));
afterEach(() => {
  vi.restoreAllMocks();
  vi.unstubAllGlobals();
});

describe('what an administrator types about an account', () => {
  it('begins with what the record knows of somebody who is invited', () => {
    const form = AccountForm.inviting({ name: 'Ines Varga', email: null, employment: 'e2', roles: ['newcomer'] }, 'de');
    expect([form.id, form.name, form.email, form.employment, form.roles, form.language]).toEqual([
      undefined,
      'Ines Varga',
      '',
      'e2',
      ['newcomer'],
      'de'
    ]);
  });

  it('is saved with the version that was looked at, and without the spaces around it', async () => {
    const put = vi.spyOn(api, 'PUT').mockResolvedValue(answer(204));
    const form = AccountForm.of(detail);
    form.name = '  Nils Aakre ';
    form.turn('manager', true);
    form.turn('owner', false);
    await form.save();
    expect(put).toHaveBeenCalledWith('/api/accounts/{id}', {
      params: { path: { id: 'a1' } },
      headers: { 'If-Match': '"7"' },
      body: {
        name: 'Nils Aakre',
        email: 'nils@halyard.example',
        roles: ['manager'],
        teams: ['stores'],
        employment: 'e1',
        language: 'de'
      }
    });
  });

  it('keeps what was typed, and says at each part what is wrong with it or with one of its entries', async () => {
    vi.spyOn(api, 'POST').mockResolvedValue(
      answer(400, {
        code: 'invalid',
        title: 'x',
        errors: [
          { pointer: '/email', code: 'taken', detail: 'Another account signs in with this address.' },
          { pointer: '/teams/1', code: 'unknown-entry', detail: 'Choose a team of the list.' }
        ]
      })
    );
    const form = AccountForm.inviting();
    form.email = 'nils@halyard.example';
    await expect(form.invite()).rejects.toBeInstanceOf(ApiProblem);
    expect(form.error('email')).toBe('Another account signs in with this address.');
    expect(form.error('teams')).toBe('Choose a team of the list.');
    expect([form.error('name'), form.error('team'), form.failure, form.email]).toEqual([
      undefined,
      undefined,
      undefined,
      'nils@halyard.example'
    ]);
  });

  it('says as a whole what is wrong with no part of it, and forgets it at the next try', async () => {
    const post = vi.spyOn(api, 'POST').mockResolvedValue(answer(409, { code: 'last-administrator', title: 'x' }));
    const form = AccountForm.inviting();
    await expect(form.invite()).rejects.toBeInstanceOf(ApiProblem);
    expect(form.failure).toContain('administrator');
    post.mockResolvedValue(answer(200, undefined, { account: 'a2', link: '/invitation#x', endsAt: '2027-03-08T00:00:00Z' }));
    expect((await form.invite()).link).toBe('/invitation#x');
    expect(form.failure).toBeUndefined();
  });
});
