import { z } from 'zod';
import type { AskedLens, SellerRequest } from '../core';
import { dayText, limited, refractionText, lensAdd } from './fields';

/** A request as a seller's own system sends it: hostile until read. */
const text = (max: number) => z.string().trim().max(max).default('');
const lens = z.object({
  power: refractionText,
  add: lensAdd.nullable().default(null),
  lensName: text(120),
  baseCurveMm: limited('baseCurveMm').nullable().default(null),
  diameterMm: limited('diameterMm').nullable().default(null),
  boxes: z.number().int().min(0).max(60).default(0),
});
const sent = z.object({
  id: z.string().trim().min(1).max(100),
  seller: z.object({ name: text(120), contact: text(120) }),
  wearer: z.object({ name: text(120), address: text(200) }),
  askedOn: dayText('dayRequired').nullable().default(null),
  right: lens.nullable().default(null),
  left: lens.nullable().default(null),
});
const page = z.object({ requests: z.array(z.unknown()).max(500), next: z.number().int().nonnegative().max(2_147_483_647) });

export interface SentRequest extends SellerRequest {
  /** How the seller's system names it. */
  readonly outsideRef: string;
}
const lensOf = (asked: z.output<typeof lens> | null): AskedLens | null => asked && { ...asked, power: asked.power.power };

/** What a seller's system handed out: the requests that can be read, and what is wrong with the others; null where it is nothing at all. */
export function sentRequests(
  body: string,
): { readonly requests: readonly SentRequest[]; readonly passedOver: readonly string[]; readonly next: number } | null {
  let json: unknown;
  try {
    json = JSON.parse(body);
  } catch {
    return null;
  }
  const whole = page.safeParse(json);
  if (!whole.success) return null;
  const requests: SentRequest[] = [];
  const passedOver: string[] = [];
  for (const one of whole.data.requests) {
    const read = sent.safeParse(one);
    if (!read.success) {
      passedOver.push(
        read.error.issues
          .map((issue) => `${issue.path.join('.')}: ${issue.message}`)
          .join('; ')
          .slice(0, 300),
      );
      continue;
    }
    const { id, seller, wearer, askedOn, right, left } = read.data;
    requests.push({
      outsideRef: id,
      sellerName: seller.name,
      sellerContact: seller.contact,
      wearerName: wearer.name,
      wearerAddress: wearer.address,
      askedOn,
      eyes: { right: lensOf(right), left: lensOf(left) },
    });
  }
  return { requests, passedOver, next: whole.data.next };
}
