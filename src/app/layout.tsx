import '@fontsource-variable/atkinson-hyperlegible-next';
import '@fontsource-variable/atkinson-hyperlegible-mono';
import '@/ui/styles.css';
import type { Metadata } from 'next';
import { cookies, headers } from 'next/headers';
import type { ReactNode } from 'react';
import { NonceBridge } from '@/ui/NonceBridge';
import { LIGHTS_COOKIE } from './access';

export const metadata: Metadata = { title: { default: 'Keen Fit', template: '%s · Keen Fit' }, icons: { icon: '/icon.svg' } };

export default async function Layout({ children }: { readonly children: ReactNode }) {
  // Reading the headers keeps every page per request: its scripts carry the request's nonce.
  const nonce = (await headers()).get('x-nonce') ?? '';
  const lights = (await cookies()).get(LIGHTS_COOKIE)?.value === 'down' ? 'down' : 'up';
  return (
    <html lang="en" data-lights={lights}>
      <body>
        <NonceBridge nonce={nonce} />
        {children}
      </body>
    </html>
  );
}
