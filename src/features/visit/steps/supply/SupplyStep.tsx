'use client';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, type FormEvent } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { daysCovered, EYES, formatRefraction, inForce, LIFE_DAYS, may, type Eye, eyeSupply, type EyeSupply, isAnswered, stateOf } from '@/core';
import { formatDay, formatMoment, formatMoney, formatShortDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated, StateMark, type State } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useServer } from '../../../common/ServerProvider';
import { problemAt, useProblemWords } from '../../../common/words';
import { Figure, OpenWorking, WorkingProvider, type WorkingBlock } from '../../../common/Working';
import { DraftLine } from '../../shell/DraftLine';
import { useDraft } from '../../shell/useDraft';
import { useEyeWords } from '../../../common/eyeWords';
import { VisitFrame } from '../../shell/VisitFrame';
import { RawFigures } from '../../shell/RawFigures';
import { useVisit } from '../../shell/VisitProvider';
import { sourceOf } from './model';
import { Runway } from './Runway';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import prescriptionWords from '@/i18n/messages/en/prescription.messages.json';
import rawWords from '@/i18n/messages/en/raw.messages.json';
import supplyWords from '@/i18n/messages/en/supply.messages.json';
import { withWords } from '@/i18n/withWords';

const EVENT_STATE: Readonly<Record<ReturnType<typeof stateOf>, State>> = {
  placed: 'miss',
  sendFailed: 'watch',
  acknowledged: 'ok',
  backordered: 'watch',
  refused: 'stop',
};

/** Boxes for each eye, the order and what became of it, and the days they last to. */
function SupplyStepBody() {
  const t = useTranslations('supply');
  const final = useTranslations('prescription');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, run, busy, problem, refresh } = useVisit();
  const { command, session } = useServer();
  const draft = useDraft('supply');
  const form = useRef<HTMLFormElement>(null);
  const requestKey = useRef<string | null>(null);
  const { practice, today, settings } = record.session;
  const held = inForce(record.prescriptions);
  const prescription = held.find((p) => p.purpose === draft.body.purpose) ?? held[0] ?? null;
  const orders = prescription ? record.orders.filter((o) => o.prescriptionId === prescription.id) : [];
  const order = orders[0] ?? null;
  const waiting = orders.some((o) => !isAnswered(o));
  const mayOrder = may(session.viewer.roles, 'orders');
  const closed = record.visit.closedAt !== null;

  useEffect(() => {
    if (!waiting) return undefined;
    const timer = setInterval(() => void refresh(), 1500);
    return () => clearInterval(timer);
  }, [waiting, refresh]);

  const typed = (e: Eye): number | null => {
    const text = draft.body[`${e}Packs`];
    return text === undefined ? null : /^\d+$/.test(text.trim()) ? Number(text) : NaN;
  };
  const source = sourceOf(record);
  const supplies: Record<Eye, EyeSupply | null> = {
    right: prescription && eyeSupply(source, prescription, 'right', typed('right')),
    left: prescription && eyeSupply(source, prescription, 'left', typed('left')),
  };
  const place = async (event?: FormEvent): Promise<void> => {
    event?.preventDefault();
    if (!prescription) return;
    // One key for this intention: pressed twice, or sent again after an outage, it is one order.
    requestKey.current ??= crypto.randomUUID();
    const packs = (e: Eye): number => (supplies[e] ? (typed(e) ?? supplies[e].proposed) : 0);
    const done = await run(
      'placeOrder',
      { requestKey: requestKey.current, prescriptionId: prescription.id, rightPacks: packs('right'), leftPacks: packs('left') },
      t('placedToast'),
    );
    if (done?.ok) {
      requestKey.current = null;
      draft.clear();
    }
  };
  useHotkeys('ctrl+enter', () => form.current?.requestSubmit(), { enableOnFormTags: true });

  const total = EYES.reduce((sum, e) => sum + (supplies[e] && Number.isFinite(supplies[e].packs) ? supplies[e].packs * supplies[e].packPriceMinor : 0), 0);
  const blocks: WorkingBlock[] = EYES.flatMap((e) => {
    const s = supplies[e];
    if (!s?.plan.runOut) return [];
    const { plan, input } = s;
    const runOutDay = s.plan.runOut;
    const days = daysCovered(s.packs * s.packSize, input.wear);
    const life = LIFE_DAYS[s.modality];
    return [
      {
        id: `supply-${e}`,
        title: t('workingTitle', { eye: eyeWords.short(e) }),
        lines: [
          ...(plan.inHandUntil && input.inHand
            ? [
                {
                  what: t('workingInHand', { day: formatShortDay(input.inHand.openedOn), count: input.inHand.lenses, life }),
                  comes: formatDay(plan.inHandUntil),
                },
              ]
            : []),
          { what: t('workingArrives', { lead: s.leadDays }), comes: t('workingOpens', { day: formatDay(plan.orderOpens) }) },
          {
            what:
              s.modality === 'daily'
                ? t('workingDaily', { packs: s.packs, size: s.packSize, days: input.wear.daysPerWeek })
                : t('workingReusable', { packs: s.packs, size: s.packSize, life }),
            comes: t('workingDays', { count: days }),
          },
          { what: t('workingRunOut'), comes: formatDay(runOutDay), strong: true },
          {
            what: t('workingReorder', { lead: s.leadDays, margin: settings.reorderMarginDays }),
            comes: plan.reorderBy ? formatDay(plan.reorderBy) : '',
            strong: true,
          },
        ],
        foot: s.modality === 'daily' ? t('workingFootDaily') : t('workingFoot'),
      },
    ];
  });

  blocks.push({
    id: 'cost',
    title: t('costTitle'),
    lines: [
      ...EYES.flatMap((e) => {
        const s = supplies[e];
        return s && Number.isFinite(s.packs)
          ? [
              {
                what: t('costLine', { eye: eyeWords.short(e), packs: s.packs, price: formatMoney(s.packPriceMinor, practice.currency) }),
                comes: formatMoney(s.packs * s.packPriceMinor, practice.currency),
              },
            ]
          : [];
      }),
      { what: t('cost'), comes: formatMoney(total, practice.currency), strong: true },
    ],
  });

  const packsField = (e: Eye) => {
    const s = supplies[e];
    if (!s) return <span className="label">{t('notPrescribed')}</span>;
    const line = order?.lines.find((l) => l.eye === e);
    if (line) return <span className="value">{t('ordered', { packs: line.packs, size: line.packSize })}</span>;
    const p = problemAt(problem, `${e}Packs`);
    return (
      <Field
        label={t('packs', { eye: eyeWords.short(e) })}
        value={draft.body[`${e}Packs`] ?? String(s.proposed)}
        onValue={(value) => draft.set(`${e}Packs`, value)}
        inputMode="numeric"
        disabled={!mayOrder || closed}
        className="w-full max-w-[240px]"
        problem={p ? words(p.code, p.data) : Number.isNaN(typed(e)) ? words('wholeNumber') : null}
        hint={t('packsHint', { size: s.packSize, price: formatMoney(s.packPriceMinor, practice.currency) })}
      />
    );
  };
  const lensCell = (e: Eye) => {
    const s = supplies[e];
    if (!s) return <span className="label">{t('notPrescribed')}</span>;
    return (
      <>
        {s.raw ? <RawFigures raw={s.raw} /> : null}
        {s.lens ? (
          <>
            <span className="power">{formatRefraction({ sphere: s.lens.sphereD, cylinder: s.lens.cylinderD, axis: s.lens.axisDeg })}</span>
            <span className="note">
              {t('lensLine', { family: s.lens.familyName, curve: s.lens.baseCurveMm?.toFixed(1) ?? '', diameter: s.lens.diameterMm?.toFixed(1) ?? '' })}
            </span>
          </>
        ) : null}
      </>
    );
  };
  const dates = (e: Eye) => {
    const s = supplies[e];
    if (!s || !prescription) return null;
    return (
      <>
        {Number.isFinite(s.packs) ? (
          <Runway supply={s} eye={e} today={today} expiresOn={prescription.expiresOn} label={t('runwayLabel', { eye: eyeWords.name(e) })} />
        ) : null}
        {s.plan.inHandUntil ? (
          <span className="note">{t('inHand', { day: formatDay(s.plan.inHandUntil) })}</span>
        ) : (
          <span className="note">{t('nothingInHand')}</span>
        )}
      </>
    );
  };
  const runOut = (e: Eye) => {
    const s = supplies[e];
    if (!s?.plan.runOut) return <span className="label">{t('noDate')}</span>;
    return (
      <>
        <Figure id={`supply-${e}`}>
          <span className="power" data-testid={`run-out-${e}`}>
            {formatDay(s.plan.runOut)}
          </span>
        </Figure>
        <span className="note">{s.plan.ifOpened ? t('ifOpened', { day: formatDay(s.plan.orderOpens) }) : t('opened')}</span>
      </>
    );
  };
  const reorder = (e: Eye) => {
    const s = supplies[e];
    if (!s?.plan.reorderBy) return <span className="label">{t('noDate')}</span>;
    const late = s.plan.reorderBy <= today;
    return (
      <span className="power" data-testid={`reorder-${e}`}>
        {late ? <Stated state="watch">{formatDay(s.plan.reorderBy)}</Stated> : formatDay(s.plan.reorderBy)}
      </span>
    );
  };

  return (
    <WorkingProvider ids={blocks.map((b) => b.id)} initial="supply-right">
      <VisitFrame
        step="supply"
        keys={
          <span>
            <KeyCap>{'W'}</KeyCap> {t('keyWorking')}
          </span>
        }
        margin={
          <>
            <h2 className="mb-3">{t('reasoning')}</h2>
            {held.length > 1 ? (
              <Segment
                label={t('purpose')}
                values={held.map((p) => p.purpose)}
                value={prescription?.purpose ?? ''}
                word={(p) => final(`purposes.${p}`)}
                onChoose={(p) => draft.set('purpose', p)}
              />
            ) : null}
            {prescription ? <p className="mb-3">{t('until', { day: formatDay(prescription.expiresOn), number: prescription.number })}</p> : null}
            <OpenWorking blocks={blocks} />
          </>
        }
        actions={
          <>
            <Button
              disabled={busy || closed || !may(session.viewer.roles, 'clinicalWrite')}
              onClick={() => void run('closeVisit', {}, t('closedToast')).then((done) => (done?.ok ? router.push(`/wearers/${record.wearer.id}`) : undefined))}
            >
              {record.handOvers.some((c) => c.current?.visitId === record.visit.id) ? t('close') : t('closeWithout')}
            </Button>
            {order ? (
              <Button look="act" keys={['⏎']} data-enter="true" onClick={() => router.push(`/wearers/${record.wearer.id}`)}>
                {t('toWearer')}
              </Button>
            ) : (
              <Button look="act" keys={['Ctrl ⏎']} disabled={busy || !prescription || !mayOrder || closed} onClick={() => form.current?.requestSubmit()}>
                {t('place')}
              </Button>
            )}
          </>
        }
      >
        {!prescription ? (
          <div className="p-8 max-w-[640px]">
            <h2 className="power mb-3">{t('emptyTitle')}</h2>
            <p>{t('emptyText')}</p>
          </div>
        ) : (
          <form ref={form} onSubmit={(event) => void place(event)}>
            <Spine label={t('title')}>
              <SpineHead words={eyeWords.heads} label={t('prescriptionLine', { number: prescription.number })} />
              <SpineRow label={t('lens')} right={lensCell('right')} left={lensCell('left')} />
              <SpineRow
                tone="field"
                chosen={!order}
                label={t('boxes')}
                note={order ? t('orderLine', { number: order.number }) : t('boxesNote')}
                right={packsField('right')}
                left={packsField('left')}
              />
              <SpineRow label={t('runway')} note={t('runwayNote')} right={dates('right')} left={dates('left')} />
              <SpineRow label={t('runOut')} note={t('lastDay')} right={runOut('right')} left={runOut('left')} />
              <SpineRow
                label={t('reorderBy')}
                note={t('reorderNote', { margin: settings.reorderMarginDays })}
                right={reorder('right')}
                left={reorder('left')}
              />
              <SpineRow
                label={t('cost')}
                right={<span />}
                left={
                  <Figure id="cost">
                    <span className="value">{formatMoney(total, practice.currency)}</span>
                  </Figure>
                }
              />
            </Spine>
            {problem?.kind === 'invalid' && problemAt(problem, 'rightPacks')?.code === 'packsRequired' ? (
              <p className="problem px-6 py-2">
                <StateMark state="stop" />
                {words('packsRequired')}
              </p>
            ) : null}
            {!mayOrder && !order ? (
              <p className="px-6 py-2">
                <Stated state="watch">{t('onlyCoordinator')}</Stated>
              </p>
            ) : null}
          </form>
        )}
        {orders.map((o) => (
          <section key={o.id} className="px-6 py-4 max-w-[760px]" data-testid="order" data-state={stateOf(o)}>
            <h2 className="border-b border-rule-2 pb-1">{t('order', { number: o.number })}</h2>
            {o.events.map((event, index) => (
              <div key={index} className="flex justify-between gap-4 border-b border-rule py-2">
                <Stated state={EVENT_STATE[event.state]}>
                  {t(`event.${event.state}`, { reference: event.supplierReference ?? '', due: event.dueOn ? formatDay(event.dueOn) : '' })}
                </Stated>
                <span className="label">{formatMoment(event.at, practice.timeZone)}</span>
              </div>
            ))}
            {!isAnswered(o) ? (
              <div className="py-2 flex gap-4 items-center">
                <span className="label">{stateOf(o) === 'sendFailed' ? t('willTry') : t('onItsWay')}</span>
                {mayOrder && stateOf(o) === 'sendFailed' ? (
                  <Button look="quiet" onClick={() => void command('hastenOrder', { orderId: o.id, visitId: record.visit.id })}>
                    {t('tryNow')}
                  </Button>
                ) : null}
              </div>
            ) : null}
          </section>
        ))}
        <DraftLine draft={draft} />
      </VisitFrame>
    </WorkingProvider>
  );
}

export const SupplyStep = withWords({ draft: draftWords, prescription: prescriptionWords, raw: rawWords, supply: supplyWords }, SupplyStepBody);
