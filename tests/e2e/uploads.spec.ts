import { request } from 'node:http';
import { CATALOGUE_MAX_BYTES } from '../../src/formats/catalogueCsv';
import { PICTURE_MAX_BYTES } from '../../src/formats/picture';
import { LIST_MAX_BYTES } from '../../src/schema/list';
import { MEASUREMENT_MAX_BYTES } from '../../src/schema/measurement';
import { expect, signIn, test } from './site';

test.use({ file: 'uploads' });

interface Sent {
  readonly status: number;
  readonly text: string;
}
interface Sending {
  readonly body: Buffer;
  readonly headers: Readonly<Record<string, string>>;
  /** Whether its length is said beforehand. */
  readonly lengthSaid?: boolean;
}

/** Sends as no page of ours does. */
const sent = (url: string, { body, headers, lengthSaid = true }: Sending): Promise<Sent> =>
  new Promise((resolve, reject) => {
    const length = lengthSaid ? { 'content-length': String(body.byteLength) } : { 'transfer-encoding': 'chunked' };
    const asking = request(url, { method: 'POST', headers: { ...headers, ...length } }, (answer) => {
      const parts: Buffer[] = [];
      answer.on('data', (part: Buffer) => parts.push(part));
      answer.on('end', () => resolve({ status: answer.statusCode ?? 0, text: Buffer.concat(parts).toString('utf8') }));
    });
    asking.on('error', reject);
    asking.end(body);
  });

const NOWHERE = '00000000-0000-7000-8000-000000000000';
/** Every address that takes a file, how much of it at most, and what comes of one that a prescriber sends: settings are another's, no such visit is hers. */
const ADDRESSES = [
  { at: 'catalogue?name=list.csv', most: CATALOGUE_MAX_BYTES, tooLarge: 'fileTooLarge', cut: 'fileCut', then: 403 },
  { at: 'list?of=wearers', most: LIST_MAX_BYTES, tooLarge: 'fileTooLarge', cut: 'fileCut', then: 403 },
  { at: `measurement?visit=${NOWHERE}`, most: MEASUREMENT_MAX_BYTES, tooLarge: 'measurementTooLarge', cut: 'measurementCut', then: 404 },
  { at: `picture?visit=${NOWHERE}&version=1&eye=right`, most: PICTURE_MAX_BYTES, tooLarge: 'pictureTooLarge', cut: 'pictureCut', then: 404 },
] as const;

test('a file is taken only from a page of ours, by somebody signed in, no longer than it may be, and whole', async ({ page, site }) => {
  await signIn(page);
  const cookie = (await page.context().cookies()).map(({ name, value }) => `${name}=${value}`).join('; ');
  const [origin, body] = [new URL(site.url).origin, Buffer.from('nonsense\n1')];
  const own = { origin, cookie, 'content-type': 'application/octet-stream' };
  for (const { at, most, tooLarge, cut, then } of ADDRESSES) {
    const url = `${site.url}/api/uploads/${at}`;
    const others = [{ ...own, origin: 'https://elsewhere.example' }, { ...own, 'sec-fetch-site': 'cross-site' }, { cookie }];
    for (const headers of others)
      expect(await sent(url, { body, headers }), `${at} from elsewhere`).toMatchObject({ status: 403, text: expect.stringContaining('origin') });
    expect((await sent(url, { body, headers: { ...own, cookie: '' } })).status, `${at} by nobody`).toBe(401);
    const long = await sent(url, { body: Buffer.alloc(most + 1), headers: own });
    expect(long, `${at} too long`).toMatchObject({ status: 422, text: expect.stringContaining(tooLarge) });
    // Its length is not said: it is read no further than it may be.
    const streamed = await sent(url, { body: Buffer.alloc(most + 1), headers: own, lengthSaid: false });
    expect(streamed, `${at} too long, unsaid`).toMatchObject({ status: 422, text: expect.stringContaining(tooLarge) });
    for (const part of [
      { body: Buffer.alloc(0), lengthSaid: true },
      { body, lengthSaid: false },
    ])
      expect(await sent(url, { ...part, headers: own }), `${at} cut`).toMatchObject({ status: 422, text: expect.stringContaining(cut) });
    const whole = await sent(url, { body, headers: own });
    expect(whole.status, at).toBe(then);
    expect(whole.text).not.toContain('origin');
  }
  expect((await sent(`${site.url}/api/uploads/list?of=people`, { body, headers: own })).status).toBe(404);
});
