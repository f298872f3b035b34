import fc from 'fast-check';
import { performance } from 'node:perf_hooks';
import { readFhir } from '../../src/formats/fhir/read';
import { readPrescriptions, writePrescriptions } from '../../src/formats/prescriptionCsv';
import { bundleOf, PERSON, PRESCRIBER, prescription } from '../../tests/support/exchanged';

const RUNS = 100_000;
const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);

/** Somewhere in a text, something else. */
const broken = (text: fc.Arbitrary<string>): fc.Arbitrary<string> =>
  fc
    .tuple(
      text,
      fc.array(fc.tuple(fc.nat(), fc.oneof(fc.string({ maxLength: 3 }), fc.constantFrom('{', '}', '[', ']', '"', ',', ':', 'null', '-', '1e99', '\u0000'))), {
        maxLength: 6,
      }),
    )
    .map(([whole, changes]) =>
      changes.reduce((now, [at, put]) => `${now.slice(0, at % (now.length + 1))}${put}${now.slice((at % (now.length + 1)) + 1)}`, whole),
    );

function run(name: string, text: fc.Arbitrary<string>, holds: (text: string) => boolean): void {
  const began = performance.now();
  const result = fc.check(fc.property(text, holds), { numRuns: RUNS });
  const seconds = ((performance.now() - began) / 1000).toFixed(0);
  console.log(`  ${name}: ${result.numRuns} files, ${result.failed ? `FAILED: ${JSON.stringify(result.counterexample)}` : 'each one answered'}, ${seconds} s`);
  if (result.failed) process.exitCode = 1;
}

/** Whatever file comes, it is read or refused: never a crash, never half of a prescription. */
export function benchFuzz(): void {
  console.log('\nFiles of prescriptions, broken in all ways');
  const whole = (
    text: string,
    read: (text: string) => { readonly ok: boolean; readonly value?: { readonly document: { readonly prescriptions: readonly object[] } } },
  ): boolean => {
    const result = read(text);
    return !result.ok || (result.value?.document.prescriptions.length ?? 0) > 0;
  };
  const csv = (text: string) => readPrescriptions(bytes(text));
  run('FHIR, any JSON', fc.json({ maxDepth: 5 }), (text) => whole(text, readFhir));
  run('FHIR, a bundle with something broken in it', broken(prescription.map((p) => JSON.stringify(bundleOf(p)))), (text) => whole(text, readFhir));
  run('separated values, broken', broken(prescription.map((p) => writePrescriptions({ person: PERSON, prescriber: PRESCRIBER, prescriptions: [p] }))), (text) =>
    whole(text, csv),
  );
}
