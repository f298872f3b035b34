// npm test: set-up, then lint, types, unit, database and browser tests.
import { checkNode, ensureDebian, ensurePackages, hasChromium, hasPostgres, runScript } from './lib/bootstrap.mjs';

checkNode();
ensureDebian([
  ['postgresql', hasPostgres],
  ['chromium', hasChromium],
]);
ensurePackages();
await runScript('scripts/runTests.ts', process.argv.slice(2));
