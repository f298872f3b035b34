'use client';
import { useMemo } from 'react';
import { renderSVG } from 'uqr';

/** A code for a telephone's camera, of an address. @param label what it opens, for whoever cannot see it */
export function ScanCode({ address, label }: { readonly address: string; readonly label: string }) {
  const code = useMemo(() => renderSVG(address, { border: 2, ecc: 'M' }), [address]);
  // Made by the code's own library from the address alone.
  return <div className="scan-code" role="img" aria-label={label} dangerouslySetInnerHTML={{ __html: code }} />;
}
