/** Why a file could not be had. */
export type FileTrouble = 'letters' | 'noPrinter' | 'fileFailed';

const troubleOf = (status: number | undefined): FileTrouble => (status === 422 ? 'letters' : status === 503 ? 'noPrinter' : 'fileFailed');
const nameOf = (response: Response): string => /filename="([^"]+)"/.exec(response.headers.get('content-disposition') ?? '')?.[1] ?? 'lenses';

/** Hands a sheet's file to the browser as if it had been linked to. @returns why not; null when it came */
export async function saveSheet(sheetId: string, format: 'pdf' | 'ics'): Promise<FileTrouble | null> {
  const response = await fetch(`/api/sheets/${sheetId}/${format}`).catch(() => null);
  if (!response?.ok) return troubleOf(response?.status);
  const url = URL.createObjectURL(await response.blob());
  const link = document.createElement('a');
  link.href = url;
  link.download = nameOf(response);
  link.click();
  URL.revokeObjectURL(url);
  return null;
}
