'use client';
import dynamic from 'next/dynamic';

/** The settle clocks, drawn in the browser alone: no lens is known to be settling before it has asked. */
export const SettleClocks = dynamic(() => import('./SettleClocks').then((m) => m.SettleClocks), { ssr: false });
