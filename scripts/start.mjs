// Set-up, then one of the other scripts: node scripts/start.mjs [--chromium] scripts/x.ts …
import { checkNode, ensureDebian, ensurePackages, hasChromium, hasPostgres, runScript } from './lib/bootstrap.mjs';

const args = process.argv.slice(2);
const wantsChromium = args[0] === '--chromium';
if (wantsChromium) args.shift();
checkNode();
const wanted = [];
if (!process.env.DATABASE_URL) wanted.push(['postgresql', hasPostgres]);
if (wantsChromium) wanted.push(['chromium', hasChromium]);
ensureDebian(wanted);
ensurePackages();
await runScript(args[0], args.slice(1));
