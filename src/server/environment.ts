import 'server-only';
import { z } from 'zod';

const shape = z.object({
  KEENFIT_MODE: z.enum(['production', 'demo', 'test']).default('production'),
  KEENFIT_DATABASE_URL: z.url(),
  KEENFIT_SUPPLIER_URL: z.url().optional(),
  KEENFIT_SELLER_URL: z.url().optional(),
  KEENFIT_CAMERA_URL: z.url().optional(),
  KEENFIT_DEMO_PASSWORD: z.string().optional(),
});

export interface Environment {
  readonly mode: 'production' | 'demo' | 'test';
  readonly databaseUrl: string;
  readonly supplierUrl: string | null;
  /** A seller whose system sends requests and takes answers; null for none. */
  readonly sellerUrl: string | null;
  /** A slit-lamp camera that takes pictures when it is asked to; null for none. */
  readonly cameraUrl: string | null;
  /** Shown on the sign-in page in demo mode only. */
  readonly demoPassword: string | null;
}

let cached: Environment | null = null;

/** What this process was started with; throws a readable error when it is incomplete. */
export function environment(): Environment {
  if (cached) return cached;
  const read = shape.parse(process.env);
  cached = {
    mode: read.KEENFIT_MODE,
    databaseUrl: read.KEENFIT_DATABASE_URL,
    supplierUrl: read.KEENFIT_SUPPLIER_URL ?? null,
    sellerUrl: read.KEENFIT_SELLER_URL ?? null,
    cameraUrl: read.KEENFIT_CAMERA_URL ?? null,
    demoPassword: read.KEENFIT_MODE === 'production' ? null : (read.KEENFIT_DEMO_PASSWORD ?? null),
  };
  return cached;
}
