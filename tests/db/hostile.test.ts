import { NextRequest } from 'next/server';
import { describe, expect, it } from 'vitest';
import { readBytes, readJson, sameOrigin } from '../../src/app/api/request';
import { clockForm } from '../../src/schema/device';

const HERE = 'https://practice.test/api/commands/sign';
const asked = (headers: Record<string, string>) => new NextRequest(HERE, { method: 'POST', headers: { host: 'practice.test', ...headers } });
const withBody = (body: string | Uint8Array<ArrayBuffer>) => new NextRequest(HERE, { method: 'POST', body });

describe('who asks', () => {
  it.each([
    [{ origin: 'https://practice.test' }, true],
    [{ origin: 'https://practice.test', 'sec-fetch-site': 'same-origin' }, true],
    [{ origin: 'https://practice.test', 'sec-fetch-site': 'cross-site' }, false],
    [{ origin: 'https://evil.test' }, false],
    [{ origin: 'null' }, false],
    [{ origin: 'http://' }, false],
    [{ origin: '::::' }, false],
    [{}, false],
  ])('%o: %s', (headers, ours) => expect(sameOrigin(asked(headers as Record<string, string>))).toBe(ours));
});

describe('what is sent', () => {
  it.each([
    '{"name":"a\\u0000b"}',
    '{"name":"\\ud800"}',
    '{"deep":[{"\\udc00":1}]}',
    '{"name":"a\u0000b"}',
    '{',
    'x'.repeat(300_000),
    Uint8Array.of(0x22, 0xff, 0x22),
  ])('what no database can hold, or nobody can read, is refused: case %#', async (body) => {
    expect(await readJson(withBody(body))).toMatchObject({ ok: false, error: { kind: 'invalid' } });
  });
  it('everything that can be written is taken', async () => {
    const written = { name: 'Zoë 👁️ \u200d \\ud800', list: [1, null, true] };
    expect(await readJson(withBody(JSON.stringify(written)))).toEqual({ ok: true, value: written });
  });
  it('no more is read than may be long', async () => {
    let sent = 0;
    const endless = new ReadableStream<Uint8Array>({
      pull: (stream) => {
        sent += 65_536;
        stream.enqueue(new Uint8Array(65_536));
      },
    });
    const request = new NextRequest(HERE, { method: 'POST', body: endless, duplex: 'half' } as never);
    expect(await readBytes(request, 256 * 1024)).toBeNull();
    expect(sent).toBeLessThan(1024 * 1024);
  });
});

describe('the clock of a demo', () => {
  it('is set within bounds', () => {
    expect(clockForm.safeParse({ frozenAt: null, offsetSeconds: 86_400 }).success).toBe(true);
    for (const offsetSeconds of [1e12, -1e12, 0.5]) expect(clockForm.safeParse({ frozenAt: null, offsetSeconds }).success).toBe(false);
    for (const frozenAt of ['0001-01-01T00:00:00Z', '9999-01-01T00:00:00Z', 'now'])
      expect(clockForm.safeParse({ frozenAt, offsetSeconds: 0 }).success).toBe(false);
  });
});
