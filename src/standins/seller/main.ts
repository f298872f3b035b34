import { sellerServer, type SellerDocument } from './server';

// Started by the demo: KEENFIT_SELLER_PORT, and KEENFIT_SELLER_FIRST for what it asks from the start.
const port = Number(process.env.KEENFIT_SELLER_PORT);
const first = JSON.parse(process.env.KEENFIT_SELLER_FIRST ?? '[]') as readonly SellerDocument[];
sellerServer(first).listen(port, '127.0.0.1', () => process.stdout.write(`seller ready on ${port}\n`));
process.on('SIGTERM', () => process.exit(0));
