import 'server-only';
import { NextResponse, type NextRequest } from 'next/server';
import { MESSAGE_MAX_BYTES } from '@/schema/supplierMessage';
import { receiveMessage } from '@/services/supplier/receiveMessage';
import { deps } from '../../../../access';
import { outage } from '../../../outage';
import { readBytes } from '../../../request';

const STATUS = { unsigned: 401, notUnderstood: 400, taken: 200, known: 200, refused: 422 } as const;

/** What a supplier says of an order, signed with the secret that the practice gave it. */
export async function POST(request: NextRequest, { params }: { params: Promise<{ id: string }> }): Promise<NextResponse> {
  const bytes = await readBytes(request, MESSAGE_MAX_BYTES);
  if (bytes === null) return NextResponse.json({ kind: 'tooLong' }, { status: 413 });
  const of = {
    timestamp: request.headers.get('keenfit-timestamp') ?? '',
    signature: request.headers.get('keenfit-signature') ?? '',
    body: Buffer.from(bytes).toString('utf8'),
  };
  try {
    const came = await receiveMessage(deps(), (await params).id, of, Date.now() / 1000);
    return NextResponse.json(came, { status: STATUS[came.kind], headers: { 'cache-control': 'no-store' } });
  } catch (cause) {
    return outage(cause, 'a supplier’s message could not be taken');
  }
}
