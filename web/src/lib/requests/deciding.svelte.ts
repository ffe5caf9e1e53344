import { api, ApiProblem, data, type Api, type ProblemEntry } from '$lib/api/client';
import { again } from '$lib/api/again';
import { recordKeys } from '$lib/record/queries';
import { text } from '$lib/text/index.svelte';
import { done, failed } from '$lib/ui/toast';
import type { QueryClient } from '@tanstack/svelte-query';
import { requestKeys } from './queries';
import { words } from './words';

type RequestResponse = Api['RequestResponse'];
export type Word = 'agree' | 'refuse' | 'withdraw' | 'comment';

/** Somebody's word on a request: what is being said, and what was wrong with it. */
export class Deciding {
  comment = $state('');
  errors = $state<ProblemEntry[]>([]);
  busy = $state(false);
  /** Whether a reason is asked for, before it is refused. */
  refusing = $state(false);
  /** Whether it is to be handed on, and to whom. */
  handing = $state(false);
  to = $state('');
  #client: QueryClient;

  constructor(client: QueryClient) {
    this.#client = client;
  }

  forget() {
    this.comment = this.to = '';
    this.errors = [];
    this.refusing = this.handing = false;
  }

  error(pointer: string) {
    return text.problem(this.errors.find((e) => e.pointer === pointer));
  }

  say(request: RequestResponse, word: Word) {
    return this.#send(word, request, (params) =>
      api.POST(`/api/requests/{id}/${word}`, { ...params, body: { comment: this.comment.trim() || null } })
    );
  }

  handOn(request: RequestResponse) {
    return this.#send('hand-on', request, (params) =>
      api.POST('/api/requests/{id}/hand-on', { ...params, body: { to: this.to, comment: this.comment.trim() || null } })
    );
  }

  async #send(
    word: Word | 'hand-on',
    request: RequestResponse,
    send: (params: {
      params: { path: { id: string } };
      headers: { 'If-Match': string };
    }) => Promise<{ data?: RequestResponse | undefined; error?: unknown; response: Response }>
  ) {
    if (this.busy) return false;
    this.busy = true;
    try {
      const now = (await data(send({ params: { path: { id: request.id } }, headers: { 'If-Match': request.version } }) as never)) as
        RequestResponse | undefined;
      this.forget();
      if (word === 'agree' && now?.askedAgain && now.askedAgain !== request.askedAgain) failed(words().again);
      else done(words().done[word]);
      return true;
    } catch (e) {
      if (e instanceof ApiProblem && e.errors.some((x) => x.pointer === '/comment' || x.pointer === '/to')) this.errors = e.errors;
      else failed(e instanceof ApiProblem && e.status === 412 ? words().stale : text.failure(e));
      return false;
    } finally {
      this.busy = false;
      await again(this.#client, requestKeys.all, recordKeys.one(request.employmentId));
    }
  }
}
