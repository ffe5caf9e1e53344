import type { Api } from '$lib/api/client';
import { upload } from '$lib/api/upload';

/** Gives a file to the server; nobody sees it until something that is saved names it. For a field, it is held against that at once. */
export const give = (file: File, field?: string) =>
  upload<Api['GivenFile']>(`/api/files?${new URLSearchParams({ fileName: file.name, ...(field ? { field } : {}) }).toString()}`, file);

type FileGroup = Api['FileGroup'];

const endings: Record<FileGroup, string> = {
  picture: '.png,.jpg,.jpeg,.gif,.webp',
  pdf: '.pdf',
  document: '.docx,.xlsx,.pptx,.odt,.ods,.odp'
};

/** What the browser's own chooser offers first; what a file is, is told by the server. */
export const offered = (groups: FileGroup[] | null | undefined) => groups?.map((g) => endings[g]).join(',');
