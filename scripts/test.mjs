// npm test: set-up, then lint, types, unit, database and browser tests.
import { checkNode, ensureDebian, ensurePackages, hasChromium, hasDicomTools, hasPostgres, runScript } from './lib/bootstrap.mjs';

checkNode();
ensureDebian([
  ['postgresql', hasPostgres],
  ['chromium', hasChromium],
  ['dicom3tools', hasDicomTools],
]);
ensurePackages();
await runScript('scripts/runTests.ts', process.argv.slice(2));
