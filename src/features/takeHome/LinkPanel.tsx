'use client';
import { useTranslations } from 'use-intl';
import { formatMoment } from '@/i18n/format';
import { Panel } from '@/ui/Panel';
import { ScanCode } from '@/ui/ScanCode';
import { useServer } from '../common/ServerProvider';

/** The link that opens the page on the wearer's own telephone, as a code to scan and to read out. It is told once. */
export function LinkPanel({ link, until, onClose }: { readonly link: string; readonly until: string; readonly onClose: () => void }) {
  const t = useTranslations('takeHomeDesk');
  const { session } = useServer();
  return (
    <Panel open onClose={onClose} title={t('linkTitle')}>
      <p className="mb-3">{t('linkText', { day: until === '' ? '' : formatMoment(until, session.practice.timeZone) })}</p>
      <ScanCode address={link} label={t('linkCode')} />
      <p className="break-all select-all py-3" data-testid="home-link">
        {link}
      </p>
    </Panel>
  );
}
