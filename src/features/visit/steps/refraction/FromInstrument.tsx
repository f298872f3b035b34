'use client';
import { lazy, Suspense, useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES } from '@/core';
import type { Draft } from '../../shell/useDraft';

const InstrumentFile = lazy(() => import('./InstrumentFile').then((m) => ({ default: m.InstrumentFile })));

/** The way in for what an instrument wrote down. */
export function FromInstrument({ draft }: { readonly draft: Draft<'refraction'> }) {
  const t = useTranslations('refraction');
  const [open, setOpen] = useState(false);
  return (
    <>
      <button type="button" className="btn btn-quiet" onClick={() => setOpen(true)}>
        {t('fromInstrument')}
      </button>
      {open ? (
        <Suspense fallback={null}>
          <InstrumentFile
            onPowers={(powers, vertex) => {
              for (const e of EYES) if (powers[e] !== null) draft.set(e, powers[e]);
              if (vertex !== null) draft.set('vertex', vertex);
            }}
            onClose={() => setOpen(false)}
          />
        </Suspense>
      ) : null}
    </>
  );
}
