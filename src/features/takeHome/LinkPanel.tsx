'use client';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import { renderSVG } from 'uqr';
import { formatMoment } from '@/i18n/format';
import { Panel } from '@/ui/Panel';
import { useServer } from '../common/ServerProvider';

/** The link that opens the page on the wearer's own telephone, as a code to scan and to read out. It is told once. */
export function LinkPanel({ link, until, onClose }: { readonly link: string; readonly until: string; readonly onClose: () => void }) {
  const t = useTranslations('takeHomeDesk');
  const { session } = useServer();
  const code = useMemo(() => renderSVG(link, { border: 2, ecc: 'M' }), [link]);
  return (
    <Panel open onClose={onClose} title={t('linkTitle')}>
      <p className="mb-3">{t('linkText', { day: until === '' ? '' : formatMoment(until, session.practice.timeZone) })}</p>
      {/* Made by the code's own library from the address alone. */}
      <div className="scan-code" role="img" aria-label={t('linkCode')} dangerouslySetInnerHTML={{ __html: code }} />
      <p className="break-all select-all py-3" data-testid="home-link">
        {link}
      </p>
    </Panel>
  );
}
