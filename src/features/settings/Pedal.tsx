'use client';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { KeyCap, Stated } from '@/ui/marks';
import { mayBePedal, pedalName, usePedal } from '../common/pedal';

/** The pedal at the slit lamp is taught by pressing it once: whatever key it sends then logs a blink on this device. */
export function Pedal() {
  const t = useTranslations('device');
  const [code, choose] = usePedal();
  const [waits, setWaits] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  useEffect(() => {
    if (!waits) return;
    const listen = (event: KeyboardEvent): void => {
      if (event.key === 'Tab') return;
      event.preventDefault();
      event.stopPropagation();
      if (event.key === 'Escape') setWaits(false);
      else if (mayBePedal(event.code)) {
        // Space logs a blink anyway, and keeps its work on buttons.
        choose(event.code === 'Space' ? '' : event.code);
        setWaits(false);
        setRefused(null);
      } else setRefused(pedalName(event.code));
    };
    window.addEventListener('keydown', listen, true);
    return () => window.removeEventListener('keydown', listen, true);
  }, [waits, choose]);
  return (
    <div className="flex gap-4 items-center py-2 border-b border-rule flex-wrap">
      <div className="flex-1 min-w-[240px]">
        <div>{t('pedal')}</div>
        <div className="note">{t('pedalText')}</div>
      </div>
      <span role="status" className="flex gap-3 items-center">
        {refused !== null && waits ? (
          <Stated state="stop">{t('pedalTaken', { key: refused })}</Stated>
        ) : waits ? (
          t('pedalWaits')
        ) : (
          <KeyCap>{code ? pedalName(code) : t('space')}</KeyCap>
        )}
      </span>
      {waits ? (
        <Button onClick={() => setWaits(false)}>{t('pedalLeave')}</Button>
      ) : (
        <>
          <Button
            onClick={() => {
              setRefused(null);
              setWaits(true);
            }}
          >
            {t('pedalTeach')}
          </Button>
          {code ? (
            <Button look="quiet" onClick={() => choose('')}>
              {t('pedalForget')}
            </Button>
          ) : null}
        </>
      )}
    </div>
  );
}
