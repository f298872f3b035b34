import { supplierServer } from './server';

// Started by the demo and the browser tests: KEENFIT_SUPPLIER_PORT, KEENFIT_SUPPLIER_FILE, KEENFIT_SUPPLIER_TODAY,
// KEENFIT_SUPPLIER_SLOW_MS, KEENFIT_SUPPLIER_SHIP_AFTER_MS.
const port = Number(process.env.KEENFIT_SUPPLIER_PORT);
const server = supplierServer({
  file: process.env.KEENFIT_SUPPLIER_FILE ?? null,
  slowMs: Number(process.env.KEENFIT_SUPPLIER_SLOW_MS ?? 8000),
  shipAfterMs: process.env.KEENFIT_SUPPLIER_SHIP_AFTER_MS ? Number(process.env.KEENFIT_SUPPLIER_SHIP_AFTER_MS) : null,
  today: () => process.env.KEENFIT_SUPPLIER_TODAY ?? new Date().toISOString().slice(0, 10),
});
server.listen(port, '127.0.0.1', () => process.stdout.write(`supplier ready on ${port}\n`));
process.on('SIGTERM', () => process.exit(0));
