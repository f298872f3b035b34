import { loadLivingDemo } from '../../demo/lives/loadLivingDemo';
import { connect } from '../../src/db/client';

/**
 * Makes the demo's data in an empty database that is migrated.
 * @param supplierFile where the supplier's stand-in keeps its orders
 * @returns false when there is a practice already
 */
export async function makeDemo(url: string, now: string, supplierFile: string): Promise<boolean> {
  const owner = connect(url, { max: 1, applicationName: 'keenfit-demo' });
  try {
    const [practices] = await owner<{ n: number }[]>`select count(*)::int as n from practice`;
    if (practices?.n !== 0) return false;
    console.log('Making the demo: a practice of about sixty wearers, with their years of visits and orders. About a minute, once …');
    const { refused } = await loadLivingDemo(owner, now, supplierFile);
    for (const line of refused) console.error(`  a made-up life ended early: ${line}`);
    return true;
  } finally {
    await owner.end();
  }
}
