'use client';
import { setNonce } from 'get-nonce';

/** Hands the request's nonce to the dialog parts, which add a style element of their own when they open. */
export function NonceBridge({ nonce }: { readonly nonce: string }) {
  setNonce(nonce);
  return null;
}
