import { exportPrescription } from '@/services/exchange/queries';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../../access';

const TYPE: Readonly<Record<string, string>> = { fhir: 'application/fhir+json; charset=utf-8', csv: 'text/csv; charset=utf-8' };

/** A signed prescription as a file for another system: FHIR R4, or separated values. */
export async function GET(_request: Request, { params }: { readonly params: Promise<{ readonly id: string; readonly format: string }> }): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const { id, format } = await params;
  const made = await perform(exportPrescription, deps(), caller.value, { prescriptionId: id, format });
  if (!made.ok) return new Response(null, { status: made.error.kind === 'notFound' || made.error.kind === 'invalid' ? 404 : 403 });
  const { name, text } = made.value;
  return new Response(text, {
    headers: { 'content-type': TYPE[format] ?? 'text/plain', 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' },
  });
}
