import { perform } from '@/services/perform';
import { readImportFaults } from '@/services/catalogueImport/queries';
import { currentCaller, deps } from '../../../../access';
import { csvResponse } from '../../csv';

/** Every fault of a catalogue file by line, to be mended where the file comes from. */
export async function GET(_request: Request, { params }: { params: Promise<{ id: string }> }): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const { id } = await params;
  const read = await perform(readImportFaults, deps(), caller.value, { importId: id });
  if (!read.ok) return new Response(null, { status: read.error.kind === 'forbidden' ? 403 : 404 });
  return csvResponse(read.value.csv, 'faults.csv');
}
