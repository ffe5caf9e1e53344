import createClient, { type Middleware } from 'openapi-fetch';
import type { components, paths } from './schema';

/** The shapes the server answers with. */
export type Api = components['schemas'];

/** One thing wrong with what was sent (RFC 9457 with a pointer, RFC 6901, into the request). */
export interface ProblemEntry {
  pointer: string;
  code: string;
  detail: string;
}

/** What the server said instead of an answer. */
export class ApiProblem extends Error {
  constructor(
    readonly status: number,
    readonly code: string,
    title: string,
    readonly errors: ProblemEntry[],
    /** What is there now, when somebody else saved in between. */
    readonly current: unknown
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

export const api = createClient<paths>({ baseUrl: '' });
api.use(xsrf);

interface ProblemBody {
  code?: string;
  title?: string;
  errors?: ProblemEntry[];
  current?: unknown;
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
  throw new ApiProblem(result.response.status, body.code ?? 'fault', body.title ?? '', body.errors ?? [], body.current);
}
