import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

/** The shapes the server answers with. */
export type Api = components['schemas'];

/** One thing wrong with what was sent (RFC 9457 with a pointer, RFC 6901, into the request). */
export interface ProblemEntry {
  pointer: string;
  code: string;
  detail: string;
  /** The pointer to what it only follows from. */
  follows?: string | null;
}

/** What the server said instead of an answer. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    title: string,
    readonly errors: ProblemEntry[],
    /** What is there now, when somebody else saved in between. */
    readonly current: unknown,
    /** By which the line in the server's log is found again. */
    readonly traceId?: string
  ) {
    super(title);
  }

  /** What is wrong with one part of the request. */
  at(pointer: string): ProblemEntry | undefined {
    return this.errors.find((e) => e.pointer === pointer);
  }
}

const safe = new Set(['GET', 'HEAD', 'OPTIONS']);

const xsrf: Middleware = {
  onRequest({ request }) {
    const token = /(?:^|;\s*)fid-xsrf=([^;]*)/.exec(document.cookie)?.[1];
    // Names of list entries come in the reader's language.
    if (document.documentElement.lang) request.headers.set('Accept-Language', document.documentElement.lang);
    if (!safe.has(request.method) && token) request.headers.set('X-Fid-Xsrf', decodeURIComponent(token));
    return request;
  }
};

// Acts, which the server does once under one key, however often they are sent. What only asks, signs in or brings a file is none.
const one = '[^/]+';
const acts = [
  `records/${one}(/(requests|offer/taken))?`,
  `records/${one}/changes/${one}/(explanations|take-back)`,
  'hires(/many)?',
  `pay-check(/checklists(/${one}(/tasks/${one})?)?)?`,
  `pay-revisions(/${one}/undo)?`,
  `hires/${one}/(start|outcome|reminders)`,
  `hires/${one}/tasks(/${one}/(done|skipped|parts))?`,
  'tasks/(done|undone|note|files|taken|taken-back|skipped|unskipped|owner|day|shape|reminders|paused)',
  `people/(${one}/merge|merges/${one})`,
  `lists/${one}/entries(/${one}(/(retire|restore))?)?`,
  `templates/(${one}/(draft|draft/publish|retired)|updates(/${one}/undo)?|import)`,
  `shared-tasks/${one}`,
  'fields/draft(/publish)?',
  `requests/${one}/(agree|refuse|withdraw|comment|hand-on)`,
  `intake/(feed|${one}/(decline|proposals))`,
  `outbox/${one}/told`,
  `accounts(/${one}(/(link|disabled|sessions))?)?`,
  `jobs/${one}/again`,
  `setup/(settings|starters/${one})`,
  `imports/${one}(/(matching|cells|commit|undo))?`,
  `hires/${one}/stages/${one}/(passed|reopened)`,
  `stalls/tasks/${one}/drafts`,
  `people/${one}/checklists`,
  'arrivals/calendar-link'
];
const keyed = new RegExp(`^/api/(${acts.join('|')})$`);
const mostTries = 3;

// How somebody is asked to prove once more who they are; answers whether they did.
let asksAgain: (() => Promise<boolean>) | undefined;

/** Says how somebody is asked to prove once more who they are. Answers the function that takes it back. */
export function onProveAgain(ask: () => Promise<boolean>): () => void {
  asksAgain = ask;
  return () => {
    if (asksAgain === ask) asksAgain = undefined;
  };
}

/** Sends a request, and once more where it is refused until somebody has proved again who they are. */
export async function sendProved(request: Request, send: typeof fetch = fetch): Promise<Response> {
  const again = request.clone();
  const response = await send(request);
  if (response.status !== 403 || !asksAgain || !response.headers.get('Content-Type')?.startsWith('application/problem+json'))
    return response;
  const problem = (await response.clone().json()) as ProblemBody;
  return problem.code === 'prove-again' && (await asksAgain()) ? send(again) : response;
}

/**
 * Sends an act under a key of its own, and again under the same key where nobody can say what became of it: the line broke, or the
 * database did (RFC 9110, 15.6.4). Anything else is sent once.
 */
export async function sendOnce(request: Request, send: typeof fetch = fetch): Promise<Response> {
  const isKeyed = !safe.has(request.method) && keyed.test(new URL(request.url).pathname);
  if (isKeyed) request.headers.set('Idempotency-Key', crypto.randomUUID());
  for (let tried = 1; ; tried++) {
    const last = !isKeyed || tried === mostTries;
    try {
      const response = await send(last ? request : request.clone());
      if (last || response.status !== 503) return response;
      await pause(Number(response.headers.get('Retry-After') ?? 1));
    } catch (e) {
      if (last) throw e;
      await pause(1);
    }
  }
}

const pause = (seconds: number) => new Promise((done) => setTimeout(done, Math.min(seconds, 5) * 1000));

export const api = createClient<paths>({ baseUrl: '', fetch: (request) => sendOnce(request, sendProved as typeof fetch) });
api.use(xsrf);

interface ProblemBody {
  code?: string;
  title?: string;
  errors?: ProblemEntry[];
  current?: unknown;
  traceId?: string;
}

/** The data of an answer; throws what was wrong otherwise. */
export async function data<T>(call: Promise<{ data?: T; error?: unknown; response: Response }>): Promise<T> {
  let result;
  try {
    result = await call;
  } catch {
    throw new ApiProblem(0, 'no-connection', 'No connection', [], undefined);
  }
  if (result.response.ok) return result.data as T;
  const body = (typeof result.error === 'object' && result.error !== null ? result.error : {}) as ProblemBody;
  throw new ApiProblem(result.response.status, body.code ?? 'fault', body.title ?? '', body.errors ?? [], body.current, body.traceId);
}
