// npm run demo: everything on one machine, from nothing to an address to open.
import { checkNode, ensureDebian, ensurePackages, hasChromium, hasPostgres, runScript } from './lib/bootstrap.mjs';

checkNode();
// Chromium writes the page to take home as a file.
ensureDebian([...(process.env.DATABASE_URL ? [] : [['postgresql', hasPostgres]]), ['chromium', hasChromium]]);
ensurePackages();
await runScript('scripts/runDemo.ts', process.argv.slice(2));
