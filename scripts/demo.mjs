// npm run demo: everything on one machine, from nothing to an address to open.
import { checkNode, ensureDebian, ensurePackages, hasPostgres, runScript } from './lib/bootstrap.mjs';

checkNode();
if (!process.env.DATABASE_URL) ensureDebian([['postgresql', hasPostgres]]);
ensurePackages();
await runScript('scripts/runDemo.ts', process.argv.slice(2));
