import { perform } from '@/services/perform';
import { exportRestock } from '@/services/trialStock/levels';
import { currentCaller, deps } from '../../access';
import { csvResponse } from '../catalogue/csv';

/** Trial lenses to be ordered, as a file. */
export async function GET(): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const made = await perform(exportRestock, deps(), caller.value, {});
  return made.ok ? csvResponse(made.value.csv, 'trial-lenses-to-order.csv') : new Response(null, { status: 403 });
}
