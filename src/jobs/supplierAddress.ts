/**
 * Where something is brought to or asked of a supplier.
 * @param base the address that the server was started with
 * @param endpoint of the supplier: a path under that address, or an address of its own; empty: that address
 * @example supplierAddress('http://127.0.0.1:9', 'marram', 'orders').href → 'http://127.0.0.1:9/marram/orders'
 */
export function supplierAddress(base: string, endpoint: string, what: string): URL {
  const from = new URL(endpoint === '' ? base : new URL(endpoint, `${base.replace(/\/$/, '')}/`));
  from.pathname = `${from.pathname.replace(/\/$/, '')}/${what}`;
  return from;
}
