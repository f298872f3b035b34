'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction } from '@/core';
import { readBoxCode } from '@/formats/gs1/elementString';
import drawerMoreWords from '@/i18n/messages/en/drawerMore.messages.json';
import { withWords } from '@/i18n/withWords';
import { Stated } from '@/ui/marks';
import { ScanField } from '../common/receipt/ScanField';
import type { ServiceOutput } from '../common/server';
import { useServer } from '../common/ServerProvider';

/** What a scanned pack of trial lenses says; the lens where its code was learned before. */
export interface ScannedTrial {
  readonly gtin: string;
  readonly lot: string | null;
  readonly expiresOn: string | null;
  readonly lens: ServiceOutput<'readTrialBox'>['lens'];
}
type Said =
  { readonly kind: 'scanned'; readonly family: string; readonly power: string } | { readonly kind: 'scanUnknown' | 'scanNoNumber' | 'scanAway' | 'scanFault' };

/** A pack of trial lenses scanned or typed: what it says fills the form below. */
function Scan({ onScanned }: { readonly onScanned: (scanned: ScannedTrial) => void }) {
  const t = useTranslations('drawerMore');
  const { look, session } = useServer();
  const [said, setSaid] = useState<Said | null>(null);
  const read = async (text: string): Promise<void> => {
    const code = readBoxCode(text, session.today);
    if (!code.ok) return setSaid({ kind: 'scanFault' });
    const { gtin, lot, expiresOn } = code.value;
    if (gtin === null) return setSaid({ kind: 'scanNoNumber' });
    const found = await look('readTrialBox', { gtin });
    if (!found?.ok) return setSaid({ kind: 'scanAway' });
    const { lens } = found.value;
    onScanned({ gtin, lot, expiresOn, lens });
    setSaid(
      lens === null
        ? { kind: 'scanUnknown' }
        : { kind: 'scanned', family: lens.familyName, power: formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) },
    );
  };
  const state = said?.kind === 'scanned' ? 'ok' : said?.kind === 'scanUnknown' ? 'watch' : 'stop';
  return (
    <div data-testid="scan-trial">
      <ScanField label={t('scan')} hint={t('scanHint')} onScan={read} />
      <div role="status" aria-live="polite">
        {said ? <Stated state={state}>{said.kind === 'scanned' ? t('scanned', said) : t(said.kind)}</Stated> : null}
      </div>
    </div>
  );
}

export const ScanTrial = withWords({ drawerMore: drawerMoreWords }, Scan);
