'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { RULE_VERSION } from '@/core';
import costWords from '@/i18n/messages/en/cost.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import peroxideWords from '@/i18n/messages/en/peroxide.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useKey } from '../../../common/keys';
import { DecisionLine } from '../../shell/DecisionLine';
import { decisionOf } from '../../shell/health';
import { useKindName } from '../../shell/kindWords';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { Cost } from './Cost';
import { Decide } from './Decide';
import { KindRows } from './KindRows';
import { useKind, type KindAdvice } from './useKind';
import { WouldBe } from './WouldChange';

/** One kind of lens recommended, and a second: for and against, what it rests on, what would change it; then decided. */
function KindStepBody() {
  const t = useTranslations('kind');
  const kindName = useKindName();
  const router = useRouter();
  const { record, run, busy } = useVisit();
  const kind = useKind();
  const { offered, asked, closed } = kind;
  const [picked, setPicked] = useState<number>(0);
  const [reason, setReason] = useState('');
  const choice = offered[picked] ?? null;
  const decide = async (): Promise<void> => {
    if (!choice) return;
    const { modality, wear } = choice.kind;
    const done = await run('decideKind', { modality, wear, reason: picked > 0 ? reason : null }, t('decided'));
    if (done?.ok) router.push(`/visits/${record.visit.id}/lens`);
  };
  useKey(
    '1,2,3,4',
    (event) => {
      const index = Number(event.key) - 1;
      if (offered[index]) setPicked(index);
    },
    [offered.length],
  );
  return (
    <VisitFrame
      step="lens"
      keys={[[['1', String(Math.max(1, offered.length))], t('keyDecide')]]}
      margin={<KindMargin kind={kind} other={picked > 0} />}
      actions={
        asked ? (
          <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || closed || !choice} onClick={() => void decide()}>
            {choice ? t('do', { kind: kindName(choice.kind).toLocaleLowerCase('en') }) : t('noRecommendation')}
          </Button>
        ) : (
          <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/visits/${record.visit.id}/history`)}>
            {t('doNoHistory')}
          </Button>
        )
      }
    >
      <KindRows kind={kind} />
      <WouldBe kind={kind} />
      <Decide kind={kind} picked={picked} onPick={setPicked} reason={reason} onReason={setReason} onDecide={() => void decide()} />
    </VisitFrame>
  );
}

/** What speaks for the first, what is missing, and what a year costs. */
function KindMargin({ kind, other }: { readonly kind: KindAdvice; readonly other: boolean }) {
  const t = useTranslations('kind');
  const kindName = useKindName();
  const { record } = useVisit();
  const { advice, asked, dropped, needs } = kind;
  const lead = advice.recommended;
  return (
    <>
      <h2 className="mb-3">{t('reasoning')}</h2>
      {lead ? (
        <p className="mb-3">
          <strong>
            {advice.second
              ? t('leads', { kind: kindName(lead.kind), score: lead.score, other: advice.second.score })
              : t('alone', { kind: kindName(lead.kind) })}
          </strong>
        </p>
      ) : null}
      {!asked ? (
        <p className="mb-3">
          <Stated state="watch">{t('noHistory')}</Stated>
        </p>
      ) : null}
      {dropped.length > 0 ? (
        <p className="mb-3" data-testid="dropped">
          <Stated state="watch">{t('dropped', { families: dropped.map((d) => record.families.find((f) => f.code === d)?.name ?? d).join(', ') })}</Stated>
        </p>
      ) : null}
      {decisionOf(record) ? (
        <p className="mb-3" data-testid="decision">
          <strong>{t('decidedStop')}</strong> <DecisionLine />
        </p>
      ) : null}
      {other ? <Stated state="watch">{t('overridden')}</Stated> : null}
      {lead ? <Cost first={lead.kind} second={advice.second?.kind ?? null} needs={needs} /> : null}
      <p className="note mt-4">{t('order', { version: RULE_VERSION })}</p>
      <p className="note mt-2">{t('marksLegend')}</p>
    </>
  );
}

export const KindStep = withWords({ cost: costWords, kind: kindWords, peroxide: peroxideWords, signs: signsWords }, KindStepBody);
