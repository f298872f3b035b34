'use client';
import Link from 'next/link';
import { useEffect, useState } from 'react';
import { useTranslations } from 'use-intl';
import { may, SET_LENS_ENDS, type SetLens, type SetLensEnd } from '@/core';
import { formatMoment, formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import type { ServiceOutput } from '../../common/server';
import { useServer } from '../../common/ServerProvider';

type Event = ServiceOutput<'readSetLens'>['events'][number];

/** One lens of a set: who had it on, when it was disinfected, and taking it out of the set. */
export function SetLensPanel({
  lens,
  busy,
  onEnd,
  onClose,
}: {
  readonly lens: SetLens;
  readonly busy: boolean;
  readonly onEnd: (why: SetLensEnd) => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('sets');
  const { session, query } = useServer();
  const [events, setEvents] = useState<readonly Event[] | null>(null);
  const [why, setWhy] = useState<SetLensEnd>('damaged');
  const mayRead = may(session.viewer.roles, 'clinicalRead');
  useEffect(() => {
    if (!mayRead) return;
    void query('readSetLens', { diagnosticLensId: lens.id }).then((read) => {
      if (read?.ok) setEvents(read.value.events);
    });
  }, [query, lens.id, lens.disinfections.length, lens.endedAt, mayRead]);
  const zone = session.practice.timeZone;
  const line = (e: Event): string => {
    switch (e.what) {
      case 'on':
        return e.until === null ? t('story.on', { eye: e.detail ?? '' }) : t('story.off', { eye: e.detail ?? '', until: formatTime(e.until, zone) });
      case 'disinfected':
        return t('story.disinfected', { how: e.detail ?? '', until: e.until === null ? '' : formatTime(e.until, zone) });
      case 'ended':
        return t('story.ended', { why: t(`ends.${(e.detail ?? 'lost') as SetLensEnd}`) });
      case 'added':
        return t('story.added');
    }
  };
  return (
    <Panel open wide onClose={onClose} title={t('lensTitle', { number: lens.number, set: lens.setName })}>
      {mayRead ? (
        <ul className="max-h-[320px] overflow-auto" data-testid="story">
          {(events ?? []).map((e, i) => (
            <li key={i} className="flex flex-wrap gap-3 border-t border-rule py-2">
              {e.wearerId === null ? (
                <span>{e.name}</span>
              ) : (
                <Link className="underline" href={`/wearers/${e.wearerId}`} prefetch={false}>
                  {e.name}
                </Link>
              )}
              <span>{line(e)}</span>
              <span className="note ml-auto">{formatMoment(e.at, zone)}</span>
            </li>
          ))}
        </ul>
      ) : (
        <p>{t('notYours')}</p>
      )}
      {lens.endedAt === null ? (
        <div className="mt-4 flex flex-wrap gap-3 items-end">
          <div>
            <span className="field-label">{t('endWhy')}</span>
            <Segment label={t('endWhy')} values={SET_LENS_ENDS} value={why} word={(w) => t(`ends.${w}`)} onChoose={setWhy} />
          </div>
          <Button disabled={busy} onClick={() => onEnd(why)}>
            {t('end')}
          </Button>
        </div>
      ) : null}
      <div className="flex justify-end mt-3">
        <Button onClick={onClose}>{t('close')}</Button>
      </div>
    </Panel>
  );
}
