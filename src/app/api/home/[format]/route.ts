import { perform } from '@/services/perform';
import { readTakeHome } from '@/services/takeHome/queries';
import { deps, homeLink } from '../../../access';
import { homeFile, isHomeFormat } from '../../../homeFile';
import { outage } from '../../outage';

/** The page of a wearer's own link, as a file. */
export async function GET(_request: Request, { params }: { readonly params: Promise<{ readonly format: string }> }): Promise<Response> {
  const { format } = await params;
  if (!isHomeFormat(format)) return new Response(null, { status: 404 });
  try {
    const link = await homeLink();
    if (!link.ok) return new Response(null, { status: 401 });
    const read = await perform(readTakeHome, deps(), link.value, { visitId: link.value.subjectId });
    if (!read.ok) return new Response(null, { status: 404 });
    return await homeFile(read.value, format);
  } catch (cause) {
    return outage(cause, 'a page to take home could not be written');
  }
}
