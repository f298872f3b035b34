import { gzipSync } from 'node:zlib';
import { VISIT_PAGES, type VisitPage } from '../../src/core';
import { connect, type Sql } from '../../src/db/client';
import { SERVICES, type ServiceName } from '../../src/services';
import type { Deps, Service } from '../../src/services/define';
import { perform, performWith } from '../../src/services/perform';
import { readChanged } from '../../src/services/visit/slices';
import type { z } from 'zod';
import { fillLibrary } from './benchTyping';
import { prescriberOf, tenYears } from './tenYears';
import { fillDrawer } from '../../tests/support/drawer';
import { TEST_NOW, TEST_TODAY } from '../../tests/support/moment';

const kB = (bytes: number): string => `${(bytes / 1000).toFixed(1)} kB`;
const gzipped = (value: unknown): number => gzipSync(JSON.stringify(value)).length;

/** What a visit of ten years costs to read and to change: bytes, gzipped, and statements. */
export async function benchRecord(owner: Sql, appUrl: string): Promise<void> {
  await fillLibrary(owner, 500, TEST_NOW);
  await fillDrawer(owner, 99);
  let statements = 0;
  const sql = connect(appUrl, {
    max: 1,
    onStatement: (text) => {
      if (!/^(begin|commit|rollback)/i.test(text.trim())) statements += 1;
    },
  });
  let now = TEST_NOW;
  const deps: Deps = { sql, side: sql, clock: { now: () => Promise.resolve(now) }, mode: 'test' };
  const caller = await prescriberOf(owner);
  const ask = (name: string, input: object) => perform(SERVICES[name as ServiceName] as never, deps, caller, input) as never;
  const [family] = await owner<{ id: string }[]>`select id from lens_family_version where code = 'plover-30-toric'`;
  const lens = (sphere: number, cylinder: number, axis: number) => ({
    familyId: family?.id,
    sphere,
    cylinder,
    axis,
    add: null,
    baseCurve: 8.6,
    diameter: 14.2,
  });
  const made = await tenYears(ask, (instant) => (now = instant), TEST_TODAY, { right: lens(-3, -1.75, 20), left: lens(-4.25, -1.25, 170) });
  const families = await owner<{ n: number }[]>`select count(distinct code)::int as n from lens_family_version where listed`;
  console.log(`\nA wearer of ten years, 41 visits, ${families[0]?.n ?? 0} families:`);
  for (const page of VISIT_PAGES) {
    statements = 0;
    const read = await perform(SERVICES.readVisit, deps, caller, { visitId: made.visitId, page });
    if (!read.ok) throw new Error(page);
    console.log(`  ${page.padEnd(13)} ${kB(gzipped(read.value)).padStart(8)} of record, ${statements} statements`);
  }
  statements = 0;
  const library = await perform(SERVICES.readFamilies, deps, caller, {});
  console.log(`  the library   ${kB(gzipped(library)).padStart(8)} once, ${statements} statements; held already: 304`);
  let { version } = made;
  const press = async (name: ServiceName, page: VisitPage, input: object): Promise<void> => {
    statements = 0;
    const service = SERVICES[name] as unknown as Service<z.ZodType, { readonly version: number }, unknown>;
    const options = { requestKey: crypto.randomUUID(), extra: (context: Parameters<typeof readChanged>[0]) => readChanged(context, page) };
    const done = await performWith(service, deps, caller, { visitId: made.visitId, version, ...input }, options);
    if (!done.ok) throw new Error(`${name}: ${JSON.stringify(done.error)}`);
    version = done.value.output.version;
    console.log(`  press ${name.padEnd(17)} ${kB(gzipped(done.value)).padStart(8)} back, ${statements} statements`);
  };
  await press('recordHistory', 'history', { answers: [{ question: 'dryness', value: 'evening', note: null }] });
  await press('recordFindings', 'eyeHealth', { right: [{ sign: 'staining', value: 0.5 }], left: [{ sign: 'staining', value: 0.5 }] });
  await press('recordRefraction', 'refraction', { right: '-3.25 -1.75 x 20', left: '-4.50 -1.25 x 165', vertexMm: 12 });
  await press('putOnTrials', 'lens', { right: lens(-3, -1.75, 20), left: lens(-4.25, -1.25, 170) });
  const [on] = await owner<{ id: string }[]>`
    select id from lens_on_eye where visit_id = ${made.visitId} and eye = 'right' order by recorded_at desc, visit_version desc limit 1`;
  const blinks = [{ rotationLeft: 2 }, { rotationLeft: 2 }, { rotationLeft: 2 }];
  await press('recordOnEye', 'onEye', { right: { lensOnEyeId: on?.id, fit: 'fits', blinks, overRefraction: null, vertexMm: 12 }, left: null, both: null });
  await sql.end();
}
