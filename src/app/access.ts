import 'server-only';
import { cookies, headers } from 'next/headers';
import { redirect } from 'next/navigation';
import { cache } from 'react';
import type { z } from 'zod';
import type { Result } from '@/lib/outcome';
import { clockFor } from '@/server/clock';
import { database, sideDatabase } from '@/server/database';
import { environment } from '@/server/environment';
import { resume } from '@/services/session/access';
import { resumeLink } from '@/services/session/link';
import type { Deps, LinkCaller, Service, StaffCaller } from '@/services/define';
import { perform } from '@/services/perform';

export const SESSION_COOKIE = '__Host-keenfit';
/** Names this device to the throttle of sign-ins; says nothing of who uses it. */
export const DEVICE_COOKIE = '__Host-keenfit-known';
/** A wearer's link to one lesson. */
export const LINK_COOKIE = '__Host-keenfit-lesson';
/** A wearer's link to the page they took home. */
export const HOME_COOKIE = '__Host-keenfit-home';
export const LIGHTS_COOKIE = 'keenfit-lights';

export function deps(): Deps {
  const { mode, cameraUrl } = environment();
  const sql = database();
  return { sql, side: sideDatabase(), clock: clockFor(sql, mode), mode, cameraUrl };
}

export const sessionToken = async (): Promise<string | undefined> => (await cookies()).get(SESSION_COOKIE)?.value;

/** What a page asks by itself names itself so: it is no sign of life. */
export const BACKGROUND_HEADER = 'x-keenfit-background';

/** The signed-in caller, once a request. */
export const currentCaller = cache(async (): Promise<Result<StaffCaller>> => {
  const background = (await headers()).get(BACKGROUND_HEADER) === '1';
  return resume(deps(), await sessionToken(), !background);
});

export const linkToken = async (): Promise<string | undefined> => (await cookies()).get(LINK_COOKIE)?.value;
/** The wearer whose link this browser holds, once a request. */
export const currentLink = cache(async (): Promise<Result<LinkCaller>> => resumeLink(deps(), await linkToken()));

/** The wearer whose page to take home this browser holds. */
export const homeLink = cache(async (): Promise<Result<LinkCaller>> => resumeLink(deps(), (await cookies()).get(HOME_COOKIE)?.value));

/** What this browser holds beside the session. */
export const deviceToken = async (): Promise<string | undefined> => (await cookies()).get(DEVICE_COOKIE)?.value;

/** Where a request comes from, for the sign-in throttle. A forwarded address counts only behind our own proxy. */
export async function callerAddress(): Promise<string> {
  if (process.env.KEENFIT_TRUST_PROXY !== '1') return 'local';
  return (await headers()).get('x-forwarded-for')?.split(',').at(-1)?.trim() ?? 'local';
}

/** Reads a page's data; signed out, the page becomes the sign-in. */
export async function readPage<Shape extends z.ZodType, Output>(service: Service<Shape, Output>, input: unknown, back: string): Promise<Result<Output>> {
  const caller = await currentCaller();
  if (!caller.ok) redirect(`/sign-in?to=${encodeURIComponent(back)}`);
  return perform(service, deps(), caller.value, input);
}
