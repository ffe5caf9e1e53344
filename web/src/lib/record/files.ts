import type { Api } from '$lib/api/client';
import { upload } from '$lib/api/upload';

/** Gives a file to the server; nobody sees it until something that is saved names it. */
export const give = (file: File) => upload<Api['GivenFile']>(`/api/files?${new URLSearchParams({ fileName: file.name }).toString()}`, file);
