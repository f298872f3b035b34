'use client';
import { useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { publicAddressOf } from '@/core';
import { Panel } from '@/ui/Panel';
import { ScanCode } from '@/ui/ScanCode';
import { useServer } from '../../../common/ServerProvider';

/** The code that opens the wearer's screen: read out, typed on a tablet or telephone, or taken along into a second window. */
export function ScreenCode({ lessonId, onClose }: { readonly lessonId: string; readonly onClose: () => void }) {
  const t = useTranslations('lesson');
  const { command, session } = useServer();
  const [open, setOpen] = useState<{ readonly code: string; readonly expiresAt: string } | null>(null);
  const asked = useRef(false);
  useEffect(() => {
    if (asked.current || open) return;
    asked.current = true;
    void command('openLessonScreen', { lessonId }).then((done) => {
      if (done?.ok) setOpen(done.value);
    });
  }, [command, lessonId, open]);
  const address = publicAddressOf(session.settings.publicAddress) ?? window.location.origin;
  const again = (): void => {
    asked.current = false;
    setOpen(null);
  };
  return (
    <Panel open onClose={onClose} title={t('screenTitle')}>
      <p className="mb-2">{t('screenText')}</p>
      <p className="label">{`${address}/show`}</p>
      <p className="py-3">
        <span className="label">{t('screenCode')}</span>{' '}
        <strong className="power-read" data-testid="screen-code">
          {open?.code ?? ''}
        </strong>{' '}
        <span className="label">{open ? t('screenUntil', { time: formatTime(open.expiresAt, session.practice.timeZone) }) : ''}</span>
      </p>
      {open ? <ScanCode address={`${address}/show?code=${open.code}`} label={t('screenScan')} /> : null}
      <div className="flex gap-3 flex-wrap pt-3">
        <Button disabled={!open} onClick={() => window.open(`/show?code=${open?.code ?? ''}`, '_blank', 'noopener')}>
          {t('screenWindow')}
        </Button>
        <Button look="quiet" onClick={again}>
          {t('screenNew')}
        </Button>
      </div>
    </Panel>
  );
}
