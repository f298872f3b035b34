import { writePaper } from '@/formats/pdf/paper';
import { readPrescriptionCopy } from '@/services/exchange/queries';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../../access';
import { prescriptionPaper } from '../../../../prescriptionPaper';

/** The wearer's copy of a prescription as PDF. A name that no font here can write is left to the browser's own printing, which can. */
export async function GET(request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const { id } = await params;
  const read = await perform(readPrescriptionCopy, deps(), caller.value, { prescriptionId: id });
  if (!read.ok) return new Response(null, { status: read.error.kind === 'notFound' || read.error.kind === 'invalid' ? 404 : 403 });
  const { visitId, copy } = read.value;
  const made = await writePaper(prescriptionPaper(read.value));
  if (!made.ok) return Response.redirect(new URL(`/visits/${visitId}/print/prescription`, request.url), 303);
  return new Response(new Uint8Array(made.pdf), {
    headers: {
      'content-type': 'application/pdf',
      'content-disposition': `attachment; filename="prescription-${copy.number}.pdf"`,
      'cache-control': 'no-store',
    },
  });
}
