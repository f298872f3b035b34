import { perform } from '@/services/perform';
import { exportCatalogue } from '@/services/family/queries';
import { currentCaller, deps } from '../../access';
import { csvResponse } from './csv';

/** Every family in force, as the file that can be read in again. */
export async function GET(): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const made = await perform(exportCatalogue, deps(), caller.value, {});
  return made.ok ? csvResponse(made.value.csv, 'lens-catalogue.csv') : new Response(null, { status: 403 });
}
