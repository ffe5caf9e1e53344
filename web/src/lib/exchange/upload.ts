import type { Api } from '$lib/api/client';
import { upload } from '$lib/api/upload';

/** The largest file the server takes. */
export const LARGEST = 50_000_000;

/** Sends a file, or cells that were pasted, on its way into a list. */
export const uploadSheet = (list: string, name: string, content: Blob) =>
  upload<Api['ImportResponse']>(`/api/imports?${new URLSearchParams({ list, fileName: name }).toString()}`, content);

/** Whether the server is at work on an import. */
export const underWay = (run: Api['ImportResponse']) => ['reading', 'checking', 'committing', 'undoing'].includes(run.state);
