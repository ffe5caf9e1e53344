import { ApiProblem, type Api } from '$lib/api/client';

/** The largest file the server takes. */
export const LARGEST = 50_000_000;

/** Sends a file, or cells that were pasted, on its way into a list. */
export async function upload(list: string, name: string, content: Blob): Promise<Api['ImportResponse']> {
  const token = /(?:^|;\s*)fid-xsrf=([^;]*)/.exec(document.cookie)?.[1];
  const response = await fetch(`/api/imports?${new URLSearchParams({ list, fileName: name }).toString()}`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/octet-stream', ...(token ? { 'X-Fid-Xsrf': decodeURIComponent(token) } : {}) },
    body: content
  });
  const body = (await response.json()) as Record<string, unknown>;
  if (response.ok) return body as unknown as Api['ImportResponse'];
  throw new ApiProblem(response.status, String(body.code ?? 'fault'), String(body.title ?? ''), [], undefined);
}

/** Whether the server is at work on an import. */
export const underWay = (run: Api['ImportResponse']) => ['reading', 'checking', 'committing', 'undoing'].includes(run.state);
