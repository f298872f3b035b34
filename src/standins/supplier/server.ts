import { createHmac } from 'node:crypto';
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http';
import { existsSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { isShipFault, messagesOf, type Message, type ShipFault } from './shipping';
import { stockOf, type SupplierAnswer, type SupplierLine } from './stock';

/**
 * Failures on demand. `down`: every call answers 503. `slow`: the answer takes `slowMs`. `lostAnswer`: the next
 * order is taken, then the line is cut before the answer. `duplicate`: the answer is sent as if a second order had
 * come in. `backorder`: nothing is on the shelf. `redirect`: it is sent elsewhere.
 */
export type Fault = 'none' | 'down' | 'slow' | 'lostAnswer' | 'duplicate' | 'backorder' | 'redirect' | keyof typeof ODD;

/** Answers that cannot be the answer to the order: of another one, under a name of another one, for a day that is past or years ahead, of no sense or far too long. */
const ODD = {
  otherOrder: { order: 999_999 },
  usedReference: { reference: 'MR-4101' },
  past: { dueOn: '2020-01-01' },
  far: { dueOn: '2040-01-01' },
  nonsense: { reference: 7 },
  long: { reference: 'x'.repeat(20_000) },
} as const;
const isOdd = (fault: Fault): fault is keyof typeof ODD => Object.hasOwn(ODD, fault);

export interface SupplierOptions {
  /** File that outlives a restart; null keeps orders in memory. */
  readonly file: string | null;
  readonly slowMs: number;
  /** The supplier's calendar day. */
  readonly today: () => string;
  /** Milliseconds after which an order is shipped by itself; null: when it is told to. */
  readonly shipAfterMs?: number | null;
}

interface Stored {
  readonly key: string;
  /** Under which address it came: each is a supplier of its own. */
  readonly at: string;
  readonly number: number;
  readonly deliverTo: string;
  readonly lines: readonly SupplierLine[];
  readonly answer: SupplierAnswer;
  /** How often an order with this key came in. */
  seen: number;
  /** Boxes on the road, by eye. */
  shipped: Partial<Record<'right' | 'left', number>>;
  cancelled: boolean;
}

/** What outlives a restart. */
interface Kept {
  readonly orders: readonly Stored[];
  readonly messages: readonly (readonly [at: string, messages: readonly Message[]])[];
}

/** One supplier of those that this server stands in for. */
interface House {
  fault: Fault;
  shipFault: ShipFault;
  readonly messages: Message[];
  /** Where messages are brought as they come, and what signs them. */
  hook: { readonly url: string; readonly secret: string } | null;
}

/** What an order or a cancellation says. */
interface Body {
  readonly number?: number;
  readonly deliverTo?: string;
  readonly lines?: readonly SupplierLine[];
}
interface Control {
  readonly fault?: string;
  readonly order?: number;
  readonly packs?: Partial<Record<'right' | 'left', number>>;
  readonly url?: string;
  readonly secret?: string;
}

async function readBody(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) text += String(chunk);
  return text;
}

const send = (response: ServerResponse, status: number, body: unknown): void => {
  response.writeHead(status, { 'content-type': 'application/json' });
  response.end(JSON.stringify(body));
};

const plusDays = (day: string, days: number): string => new Date(Date.parse(`${day}T00:00:00Z`) + days * 86_400_000).toISOString().slice(0, 10);

/** A stand-in for a lens supplier: orders by HTTP with an idempotency key, stock, lead times, failures on demand. */
export function supplierServer(options: SupplierOptions): Server {
  const orders = new Map<string, Stored>();
  const houses = new Map<string, House>();
  const houseAt = (at: string): House => {
    const there = houses.get(at) ?? { fault: 'none', shipFault: 'none', messages: [], hook: null };
    houses.set(at, there);
    return there;
  };
  /** A failure said at the top is every supplier's. */
  const faultOf = (at: string): Fault => (houseAt(at).fault === 'none' ? houseAt('').fault : houseAt(at).fault);
  if (options.file && existsSync(options.file)) {
    const kept = JSON.parse(readFileSync(options.file, 'utf8')) as Kept;
    for (const order of kept.orders) orders.set(order.key, order);
    for (const [at, messages] of kept.messages) houseAt(at).messages.push(...messages);
  }
  let nextReference = 4100 + orders.size;
  const keep = (): void => {
    if (!options.file) return;
    // Whole or not at all: a stand-in that is killed while it writes reads the file as it was.
    const kept: Kept = { orders: [...orders.values()], messages: [...houses].map(([at, { messages }]) => [at, messages]) };
    writeFileSync(`${options.file}.new`, JSON.stringify(kept, null, 1));
    renameSync(`${options.file}.new`, options.file);
  };

  const take = (at: string, key: string, body: Body): { order: Stored; isNew: boolean } => {
    const fault = faultOf(at);
    const lines = body.lines ?? [];
    const there = orders.get(key);
    if (there) {
      there.seen += 1;
      keep();
      return { order: there, isNew: false };
    }
    const short = fault === 'backorder' || lines.some((line) => stockOf(line).packs < line.packs);
    const lead = Math.max(...lines.map((line) => stockOf(line).leadDays)) + (fault === 'backorder' ? 21 : 0);
    nextReference += 1;
    const order: Stored = {
      key,
      at,
      number: body.number ?? 0,
      deliverTo: body.deliverTo ?? 'practice',
      lines,
      seen: 1,
      shipped: {},
      cancelled: false,
      answer: { reference: `MR-${nextReference}`, state: short ? 'backordered' : 'acknowledged', dueOn: plusDays(options.today(), lead) },
    };
    orders.set(key, order);
    keep();
    if (options.shipAfterMs != null) setTimeout(() => void ship(order, houseAt(at).shipFault), options.shipAfterMs).unref();
    return { order, isNew: true };
  };

  /** Brings a message to whoever asked to be called; what is not taken is found by asking. */
  const call = async ({ hook }: House, message: Message): Promise<void> => {
    if (!hook) return;
    const body = JSON.stringify(message);
    const timestamp = String(Math.floor(Date.now() / 1000));
    const signature = createHmac('sha256', hook.secret).update(`${timestamp}.${body}`).digest('hex');
    const headers = { 'content-type': 'application/json', 'keenfit-timestamp': timestamp, 'keenfit-signature': signature };
    await fetch(hook.url, { method: 'POST', headers, body }).catch(() => undefined);
  };

  /** Puts what is left of an order on the road, or no more boxes of an eye than said. */
  const ship = async (order: Stored, fault: ShipFault, most: Partial<Record<'right' | 'left', number>> = {}): Promise<number> => {
    if (order.cancelled) return 0;
    const lines = order.lines.flatMap((line) => {
      const left = line.packs - (order.shipped[line.eye] ?? 0);
      const packs = Math.min(left, most[line.eye] ?? left);
      return packs > 0 && !(fault === 'oneEyeMissing' && line.eye === 'left') ? [{ ...line, packs }] : [];
    });
    if (lines.length === 0) return 0;
    for (const line of lines) order.shipped[line.eye] = (order.shipped[line.eye] ?? 0) + line.packs;
    const house = houseAt(order.at);
    const of = { order: order.number, reference: order.answer.reference, deliverTo: order.deliverTo, lines: order.lines };
    const messages = messagesOf(of, lines, fault, options.today());
    house.messages.push(...messages);
    keep();
    for (const message of messages) await call(house, message);
    return lines.reduce((sum, l) => sum + l.packs, 0);
  };

  /** What tests and demonstrations ask for. */
  const control = async (at: string, what: string, request: IncomingMessage, response: ServerResponse): Promise<boolean> => {
    const house = houseAt(at);
    if (request.method === 'GET' && what === 'orders') {
      send(response, 200, { orders: [...orders.values()] });
      return true;
    }
    if (request.method !== 'PUT') return false;
    const body = JSON.parse(await readBody(request)) as Control;
    if (what === 'fault') {
      if (isShipFault(body.fault) && body.fault !== 'none') house.shipFault = body.fault;
      else [house.fault, house.shipFault] = [body.fault as Fault, 'none'];
      send(response, 200, { fault: body.fault });
    } else if (what === 'hook') {
      house.hook = body.url && body.secret ? { url: body.url, secret: body.secret } : null;
      send(response, 200, {});
    } else if (what === 'ship') {
      const order = [...orders.values()].find((o) => o.number === body.order && o.at === at);
      if (!order) send(response, 404, { problem: 'no such order' });
      else send(response, 200, { packs: await ship(order, isShipFault(body.fault) ? body.fault : 'none', body.packs) });
    } else return false;
    return true;
  };

  const handle = async (request: IncomingMessage, response: ServerResponse): Promise<void> => {
    const { pathname, searchParams } = new URL(request.url ?? '/', 'http://supplier');
    const [what = '', ...rest] = pathname.split('/').filter(Boolean).reverse();
    const at = rest.reverse().join('/');
    if (await control(at, what, request, response)) return;
    const house = houseAt(at);
    const fault = faultOf(at);
    if (fault === 'down') return send(response, 503, { problem: 'closed for maintenance' });
    if (fault === 'slow') await new Promise((resolve) => setTimeout(resolve, options.slowMs));
    if (what === 'messages' && request.method === 'GET') {
      const from = Number(searchParams.get('after') ?? 0) || 0;
      const messages = house.messages.slice(from, from + 100);
      return send(response, 200, { version: 1, messages, cursor: String(from + messages.length) });
    }
    const key = request.headers['idempotency-key'];
    if (request.method !== 'POST') return send(response, 404, { problem: 'no such page' });
    const body = JSON.parse(await readBody(request)) as Body;
    if (what === 'cancellations') {
      const order = orders.get(typeof key === 'string' ? key : '');
      if (!order) return send(response, 404, { problem: 'no such order' });
      if (Object.keys(order.shipped).length > 0) return send(response, 409, { problem: 'on the road' });
      order.cancelled = true;
      keep();
      return send(response, 200, { order: order.number, state: 'cancelled' });
    }
    if (what !== 'orders') return send(response, 404, { problem: 'no such page' });
    if (typeof key !== 'string' || !Array.isArray(body.lines) || body.lines.length === 0) {
      return send(response, 422, { problem: 'an order needs a key and at least one line' });
    }
    const { order, isNew } = take(at, key, body);
    if (fault === 'lostAnswer') {
      house.fault = 'none';
      houseAt('').fault = 'none';
      request.socket.destroy();
      return;
    }
    if (fault === 'redirect') {
      response.writeHead(307, { location: 'http://elsewhere.invalid/orders' });
      response.end();
      return;
    }
    send(response, isNew && fault !== 'duplicate' ? 201 : 200, { order: body.number, ...order.answer, ...(isOdd(fault) ? ODD[fault] : {}) });
  };

  return createServer((request, response) => {
    // What is no order is refused for good; what could not be kept (a full disk, say) is to be sent again.
    handle(request, response).catch((cause: unknown) =>
      cause instanceof SyntaxError ? send(response, 400, { problem: 'not understood' }) : send(response, 503, { problem: 'cannot be kept now' }),
    );
  });
}
