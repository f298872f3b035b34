import { exportPerson } from '@/services/personFile/queries';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../../access';

/** All that is held on a wearer, as one JSON document. */
export async function GET(_request: Request, { params }: { readonly params: Promise<{ readonly id: string }> }): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const { id } = await params;
  const made = await perform(exportPerson, deps(), caller.value, { wearerId: id });
  if (!made.ok) return new Response(null, { status: made.error.kind === 'forbidden' ? 403 : 404 });
  const { name, text } = made.value;
  return new Response(text, {
    headers: { 'content-type': 'application/json; charset=utf-8', 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' },
  });
}
