import { ApiProblem, type ProblemEntry } from './client';

/** Sends bytes as they are, and answers what the server says of them. */
export async function upload<T>(path: string, content: Blob): Promise<T> {
  const token = /(?:^|;\s*)fid-xsrf=([^;]*)/.exec(document.cookie)?.[1];
  const response = await fetch(path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', ...(token ? { 'X-Fid-Xsrf': decodeURIComponent(token) } : {}) },
    body: content
  });
  const body = (await response.json()) as Record<string, unknown>;
  if (response.ok) return body as unknown as T;
  throw new ApiProblem(
    response.status,
    String(body.code ?? 'fault'),
    String(body.title ?? ''),
    (body.errors as ProblemEntry[] | undefined) ?? [],
    undefined
  );
}
