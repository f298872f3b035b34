'use client';
import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { RULE_VERSION } from '@/core';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import historyWords from '@/i18n/messages/en/history.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import stopsWords from '@/i18n/messages/en/stops.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { useKey } from '../../../common/keys';
import { DraftLine } from '../../shell/DraftLine';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { SetsOff } from './SetsOff';
import { Sheet } from './Sheet';
import { useSheet, type SheetTyped } from './useSheet';

/** Answering by keys. */
function useSheetKeys({ sheet, here, current, closed, index, choose, move, setNoting, recordAll }: SheetTyped, busy: boolean): void {
  useKey(
    '0,1,2,3,4,5,6,7,8,9',
    (event) => {
      if (!current?.options) return;
      // The next row may open a field: the digit that chose here must not be typed there.
      event.preventDefault();
      choose(current, Number(event.key));
    },
    [current, sheet, closed],
  );
  useHotkeys('down', (event) => (event.preventDefault(), move(1)), [index, sheet]);
  useHotkeys('up', (event) => (event.preventDefault(), move(-1)), [index, sheet]);
  useHotkeys('alt+c', (event) => (event.preventDefault(), setNoting(true)), { enableOnFormTags: true }, []);
  useHotkeys('ctrl+enter', (event) => (event.preventDefault(), void recordAll(true)), { enableOnFormTags: true }, [sheet, busy]);
  useEffect(() => {
    if (here) document.getElementById(`q-${here}`)?.scrollIntoView({ block: 'nearest' });
  }, [here]);
}

/** The history as a quick sheet, and what it sets off. */
function HistoryStepBody() {
  const t = useTranslations('history');
  const { busy } = useVisit();
  const typing = useSheet();
  const { draft, sheet, live, typedCount, current, closed, recordAll, enter } = typing;
  useSheetKeys(typing, busy);
  return (
    <VisitFrame
      step="history"
      keys={[
        [['↑', '↓'], t('keyQuestion')],
        [['0–9'], t('keyAnswer')],
        [['Alt C'], t('keyNote')],
      ]}
      margin={<SetsOff health={live} />}
      actions={
        <>
          {typedCount > 0 && sheet.missing.length > 0 ? (
            <Button keys={['Ctrl', '⏎']} disabled={busy || closed} onClick={() => void recordAll(true)}>
              {t('record')}
            </Button>
          ) : null}
          <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || closed} onClick={enter}>
            {current && sheet.missing.length > 0 ? t('toGo', { count: sheet.missing.length }) : typedCount > 0 ? t('record') : t('toEyes')}
          </Button>
        </>
      }
    >
      <Sheet typing={typing} />
      <p className="note px-6 py-3">{t('rule', { version: RULE_VERSION })}</p>
      <DraftLine draft={draft} />
    </VisitFrame>
  );
}

export const HistoryStep = withWords({ history: historyWords, stops: stopsWords, draft: draftWords, kind: kindWords, signs: signsWords }, HistoryStepBody);
