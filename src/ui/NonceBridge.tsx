'use client';
import { setNonce } from 'get-nonce';

let set = false;

/** Hands the request's nonce to the dialog parts, which add a style element of their own when they open. */
export function NonceBridge({ nonce }: { readonly nonce: string }) {
  // The document keeps the policy it was loaded with; a later refresh brings another nonce that does not count.
  if (!set) setNonce(nonce);
  set = true;
  return null;
}
