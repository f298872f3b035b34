import { perform } from '@/services/perform';
import { readSheet } from '@/services/takeHome/queries';
import { currentCaller, deps } from '../../../../access';
import { homeFile, isHomeFormat } from '../../../../homeFile';
import { outage } from '../../../outage';

/** A page to take home as it was given, as a file. */
export async function GET(_request: Request, { params }: { readonly params: Promise<{ readonly id: string; readonly format: string }> }): Promise<Response> {
  const { id, format } = await params;
  if (!isHomeFormat(format)) return new Response(null, { status: 404 });
  try {
    const caller = await currentCaller();
    if (!caller.ok) return new Response(null, { status: 401 });
    const read = await perform(readSheet, deps(), caller.value, { sheetId: id });
    if (!read.ok) return new Response(null, { status: read.error.kind === 'forbidden' ? 403 : 404 });
    return await homeFile(read.value, format);
  } catch (cause) {
    return outage(cause, 'a page to take home could not be written');
  }
}
