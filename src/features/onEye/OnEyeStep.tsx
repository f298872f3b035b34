'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { EYES, formatAxis, formatRefraction, LIMITS, parseRefraction, parseRotation, powerOf, withinLimit, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { KeyCap, Stated } from '@/ui/marks';
import { RotationEye } from '@/ui/RotationEye';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { powerReady, PowerField } from '../common/PowerField';
import { useBlurWorking } from '../common/blurWorking';
import { problemAt, useProblemWords } from '../common/words';
import { Figure, OpenWorking, WorkingProvider, type WorkingBlock } from '../common/Working';
import { Correctable, SwapEyes } from '../common/visit/Correct';
import { DraftLine } from '../common/visit/DraftLine';
import { useDraft } from '../common/visit/useDraft';
import { useEyeWords } from '../common/eyeWords';
import { VisitFrame } from '../common/visit/VisitFrame';
import { useVisit } from '../common/visit/VisitProvider';
import { BroughtIn } from './BroughtIn';
import { FitControl, FITS } from './FitControl';
import { LensOn } from './LensOn';
import { problemOf, TurnControls } from './TurnControls';
import { hasReading, liveEye, noteOf, turnText } from './model';
import { expectedWorking, routesWorking, type RouteWords } from './working';

const HANDS = ['drag', 'keys'] as const;

/** The lens on the eye: settling, fit, where the mark sits, the over-refraction, and what it comes to. */
export function OnEyeStep() {
  const t = useTranslations('onEye');
  const words = useProblemWords();
  const blurWorking = useBlurWorking();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, eye, run, busy, problem } = useVisit();
  const draft = useDraft('onEye');
  const [asked, setAsked] = useState(false);
  const [bringing, setBringing] = useState(false);
  const { settings } = record.house;
  const closed = record.visit.closedAt !== null;
  const vertexText = draft.body.vertex ?? String(settings.vertexMm);
  const vertexMm = Number(vertexText.replace(',', '.'));
  const vertexFine = vertexText.trim() !== '' && withinLimit(vertexMm, LIMITS.vertexMm);
  const live = {
    right: liveEye(record, eye('right'), 'right', draft.body, vertexFine ? vertexMm : settings.vertexMm),
    left: liveEye(record, eye('left'), 'left', draft.body, vertexFine ? vertexMm : settings.vertexMm),
  };
  const usable = (e: Eye): boolean => live[e].state.onEye !== null && live[e].state.takenOffAt === null && !closed;
  const hasMark = (e: Eye): boolean => usable(e) && live[e].lens !== null && live[e].lens.markLayout !== 'none';
  const typed = EYES.filter((e) => hasReading(draft.body, e));

  const setTurn = (e: Eye, value: number, how: string): void => {
    draft.set(`${e}Turn`, turnText(value));
    draft.set(`${e}How`, how);
  };
  const turnProblem = (e: Eye) => problemOf(draft.body[`${e}Turn`] ?? '');

  const recordReadings = async (): Promise<void> => {
    setAsked(true);
    const badTurn = typed.find((e) => turnProblem(e));
    const badOver = typed.find((e) => (draft.body[e] ?? '').trim() !== '' && !powerReady(draft.body[e] ?? '', draft.body[`${e}Kept`] ?? null));
    if (badTurn ?? badOver) {
      document.getElementById(badTurn ? `turn-${badTurn}` : `over-${badOver}`)?.focus();
      return;
    }
    const reading = (e: Eye) => {
      const onEye = live[e].state.onEye;
      if (!onEye || !hasReading(draft.body, e)) return null;
      const turn = parseRotation(draft.body[`${e}Turn`] ?? '');
      const over = draft.body[e] ?? '';
      const fit = FITS.find((f) => f === draft.body[`${e}Fit`]) ?? null;
      const how: 'drag' | 'keys' | 'typed' = HANDS.find((h) => h === draft.body[`${e}How`]) ?? 'typed';
      return {
        lensOnEyeId: onEye.rootId,
        fit,
        rotationLeft: turn.ok ? turn.value : null,
        rotationHow: how,
        overRefraction: over.trim() === '' ? null : over,
        vertexMm,
      };
    };
    const done = await run('recordOnEye', { right: reading('right'), left: reading('left') }, t('recorded'));
    if (done?.ok) {
      draft.clear();
      setAsked(false);
    }
  };
  const next = (): void => {
    if (typed.length > 0) void recordReadings();
    else router.push(`/visits/${record.visit.id}/final`);
  };
  useHotkeys('r', () => document.querySelector<HTMLElement>('[data-testid="rotation-eye-right"]')?.focus());
  useHotkeys('l', () => document.querySelector<HTMLElement>('[data-testid="rotation-eye-left"]')?.focus());

  const routeWords = (e: Eye): RouteWords => ({
    title: t('workingTitle', { eye: eyeWords.short(e) }),
    lensAsLabelled: t('workingLens'),
    asItLies: (axis) => t('workingLies', { axis }),
    overAtCornea: t('workingOver'),
    need: t('workingNeed'),
    route1: t('route1'),
    route2: t('route2'),
    gap: t('gap'),
    gate: t('gate'),
    order: (turn) => t('workingOrder', { turn }),
    made: t('workingMade'),
    foot: t('workingFoot'),
  });
  const overOf = (e: Eye) => {
    const read = parseRefraction(draft.body[e] ?? '');
    const rec = live[e].state.overRefraction?.current;
    return read.ok ? { power: read.value, vertexMm } : rec ? { power: powerOf(rec), vertexMm: rec.vertexMm } : null;
  };
  const blocks = EYES.flatMap((e) => {
    const { verdict, made, state, lens, turn } = live[e];
    return [
      routesWorking(`routes-${e}`, live[e], overOf(e), routeWords(e)),
      made && verdict.order ? blurWorking(`blur-${e}`, eyeWords.short(e), verdict.order, made) : null,
      state.refraction && lens && verdict.fromRefraction && verdict.expectedOverRefraction
        ? expectedWorking(
            `expected-${e}`,
            {
              need: verdict.fromRefraction,
              lens: { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg },
              turn,
              expected: verdict.expectedOverRefraction,
              vertexMm: overOf(e)?.vertexMm ?? state.refraction.current.vertexMm,
            },
            {
              title: t('expectedTitle', { eye: eyeWords.short(e) }),
              need: t('workingNeed'),
              lies: t('expectedLies'),
              left: t('expectedLeft'),
              atFrame: t('expectedAtFrame'),
              foot: t('workingFoot'),
            },
          )
        : null,
    ].filter((b): b is WorkingBlock => b !== null);
  });

  const drawing = (e: Eye) =>
    live[e].state.onEye ? (
      <RotationEye
        eye={e}
        layout={live[e].lens?.markLayout ?? 'none'}
        value={live[e].turn}
        onChange={(value, how) => setTurn(e, value, how)}
        disabled={!hasMark(e)}
        label={t('dialLabel', { eye: eyeWords.name(e) })}
        valueText={eyeWords.turn(live[e].turn)}
        words={{ nose: t('nose'), ear: t('ear') }}
      />
    ) : (
      <span className="label py-10">{t('noLens')}</span>
    );

  const turnRow = (e: Eye) => (
    <TurnControls
      eye={e}
      live={live[e]}
      text={draft.body[`${e}Turn`] ?? ''}
      usable={usable(e)}
      hasMark={hasMark(e)}
      onType={(text) => {
        draft.set(`${e}Turn`, text);
        draft.set(`${e}How`, 'typed');
      }}
      onNudge={(value) => setTurn(e, value, 'keys')}
    />
  );

  const fitRow = (e: Eye) => (
    <FitControl eye={e} state={live[e].state} typed={draft.body[`${e}Fit`] ?? null} usable={usable(e)} onChoose={(word) => draft.set(`${e}Fit`, word)} />
  );

  const overRow = (e: Eye) => {
    if (!live[e].state.onEye) return null;
    if (!live[e].state.confirmed) return <Stated state="stop">{t('unconfirmed')}</Stated>;
    const over = live[e].state.overRefraction;
    return (
      <>
        <PowerField
          id={`over-${e}`}
          label={t('overLabel', { eye: eyeWords.name(e) })}
          eye={e}
          value={draft.body[e] ?? ''}
          onValue={(value) => draft.set(e, value)}
          problem={problemAt(problem, e, 'overRefraction')}
          kept={draft.body[`${e}Kept`] ?? null}
          onKeep={(value) => draft.set(`${e}Kept`, value)}
          notation={settings.notation}
          asked={asked}
          disabled={!usable(e)}
        />
        {over ? (
          <>
            <span className="value" data-testid={`over-recorded-${e}`}>
              {formatRefraction(powerOf(over.current), { notation: settings.notation })}
            </span>
            {over.current.provisional ? <Stated state="watch">{t('provisional')}</Stated> : null}
            <Correctable
              kind="overRefraction"
              chain={over}
              show={(row) => formatRefraction(powerOf(row))}
              typed="power"
              textOf={(row) => formatRefraction(powerOf(row))}
              vertexOf={(row) => row.vertexMm}
            />
          </>
        ) : null}
      </>
    );
  };

  const needRow = (e: Eye) => {
    const { verdict } = live[e];
    const need = verdict.fromOverRefraction?.need ?? verdict.fromRefraction;
    if (!need) return <span className="label">{t('nothingYet')}</span>;
    return (
      <Figure id={`routes-${e}`}>
        <span className="power" data-testid={`need-${e}`}>
          {formatRefraction(need)}
        </span>
      </Figure>
    );
  };
  const agreeRow = (e: Eye) => {
    const { routes, expectedOverRefraction } = live[e].verdict;
    if (!routes)
      return expectedOverRefraction ? (
        <span className="label">
          {t('expected')} <Figure id={`expected-${e}`}>{formatRefraction(expectedOverRefraction)}</Figure>
        </span>
      ) : (
        <span className="label">{t('oneRoute')}</span>
      );
    return (
      <span data-testid={`routes-${e}`}>
        {routes.agree ? (
          <Stated state="ok">{t('agree', { gap: routes.gap.toFixed(2) })}</Stated>
        ) : (
          <Stated state="stop">{t('disagree', { gap: routes.gap.toFixed(2), gate: routes.gate.toFixed(2) })}</Stated>
        )}
      </span>
    );
  };
  const orderRow = (e: Eye) => {
    const { verdict, made, turn } = live[e];
    if (verdict.routes && !verdict.routes.agree) return <span className="label">{t('noOrder')}</span>;
    if (!verdict.order) return <span className="label">{t('nothingYet')}</span>;
    const need = verdict.fromOverRefraction?.need ?? verdict.fromRefraction;
    return (
      <span data-testid={`order-${e}`} className={`flex flex-col ${e === 'right' ? 'items-end' : 'items-start'}`}>
        {need && need.cylinder !== 0 ? (
          <span className="label">
            {!live[e].turnKnown && hasMark(e)
              ? t('axisUnread', { axis: formatAxis(need.axis) })
              : turn === 0
                ? t('axisKept', { axis: formatAxis(need.axis) })
                : turn > 0
                  ? t('axisLeft', { axis: formatAxis(need.axis), turn, order: formatAxis(verdict.order.axis) })
                  : t('axisRight', { axis: formatAxis(need.axis), turn: -turn, order: formatAxis(verdict.order.axis) })}
          </span>
        ) : null}
        {made ? <span className="power">{formatRefraction(made.power)}</span> : <span className="power">{formatRefraction(verdict.order)}</span>}
        {made ? (
          <span className="note">
            {t('madeBlur')} <Figure id={`blur-${e}`}>{t('blurFigure', { blur: made.blur.toFixed(2) })}</Figure>
          </span>
        ) : (
          <span className="note">{t('noFamily')}</span>
        )}
      </span>
    );
  };

  const anyOn = EYES.some((e) => live[e].state.onEye);
  const both = EYES.every((e) => live[e].state.onEye);
  return (
    <WorkingProvider ids={blocks.map((b) => b.id)} initial={overOf('right') ? 'routes-right' : null}>
      <VisitFrame
        step="onEye"
        keys={
          <>
            <span>
              <KeyCap>{'R'}</KeyCap> <KeyCap>{'L'}</KeyCap> {t('keyEye')}
            </span>
            <span>
              <KeyCap>{'←'}</KeyCap> <KeyCap>{'→'}</KeyCap> {t('keyTurn')}
            </span>
            <span>
              <KeyCap>{'W'}</KeyCap> {t('keyWorking')}
            </span>
            <span>
              <KeyCap>{'D'}</KeyCap> {t('keyLights')}
            </span>
          </>
        }
        margin={
          <>
            <h2 className="mb-3">{t('reasoning')}</h2>
            {EYES.map((e) => {
              const note = noteOf(live[e]);
              if (!note) return null;
              const words = t(`note.${note.code}`, { eye: eyeWords.short(e), power: note.power });
              return (
                <p key={e} className="mb-3">
                  {note.state ? <Stated state={note.state}>{words}</Stated> : <strong>{words}</strong>} {note.turned ? t('noteTurn') : null}
                </p>
              );
            })}
            <p className="mb-3 label">{t('startPlus')}</p>
            <OpenWorking blocks={blocks} />
          </>
        }
        actions={
          <>
            <Button onClick={() => setBringing(true)} disabled={closed}>
              {t('broughtIn')}
            </Button>
            {anyOn ? <Button onClick={() => router.push(`/visits/${record.visit.id}/lens`)}>{t('anotherTrial')}</Button> : null}
            <Button
              look="act"
              keys={['⏎']}
              data-enter="true"
              disabled={busy || closed}
              onClick={anyOn ? next : () => router.push(`/visits/${record.visit.id}/lens`)}
            >
              {!anyOn ? t('toLens') : typed.length > 0 ? t('record') : t('toFinal')}
            </Button>
          </>
        }
      >
        <Spine label={t('title')}>
          <SpineHead words={eyeWords.heads} label={t('facing')} />
          <SpineRow
            label={t('lensOn')}
            note={both ? <SwapEyes kind="lensOnEye" /> : undefined}
            right={<LensOn eye="right" live={live.right} />}
            left={<LensOn eye="left" live={live.left} />}
          />
          {anyOn ? (
            <>
              <SpineRow label={t('markSits')} note={t('markNote')} right={drawing('right')} left={drawing('left')} />
              <SpineRow
                label={t('typeTurn')}
                note={
                  <>
                    {t('typeTurnNote')} {EYES.every((e) => live[e].state.rotation) ? <SwapEyes kind="rotation" /> : null}
                  </>
                }
                right={turnRow('right')}
                left={turnRow('left')}
              />
              <SpineRow label={t('fitRow')} right={fitRow('right')} left={fitRow('left')} />
              <SpineRow
                tone="field"
                chosen
                label={t('over')}
                note={
                  <span className="flex flex-col items-center gap-1">
                    <label htmlFor="over-vertex">{t('vertex')}</label>
                    <input
                      id="over-vertex"
                      className="input input-mono w-20! h-8! text-center text-ink"
                      value={vertexText}
                      onChange={(event) => draft.set('vertex', event.target.value)}
                      inputMode="decimal"
                      aria-invalid={!vertexFine || undefined}
                    />
                    {EYES.every((e) => live[e].state.overRefraction) ? <SwapEyes kind="overRefraction" /> : null}
                    {!vertexFine ? <span>{words('vertexMmOutOfRange', { value: vertexText, min: LIMITS.vertexMm.min, max: LIMITS.vertexMm.max })}</span> : null}
                  </span>
                }
                right={overRow('right')}
                left={overRow('left')}
              />
              <SpineRow
                label={t('needRow')}
                note={t('needNote')}
                right={
                  <>
                    {needRow('right')}
                    {agreeRow('right')}
                  </>
                }
                left={
                  <>
                    {needRow('left')}
                    {agreeRow('left')}
                  </>
                }
              />
              <SpineRow label={t('orderRow')} note={t('orderNote')} right={orderRow('right')} left={orderRow('left')} />
            </>
          ) : null}
        </Spine>
        {!anyOn ? <p className="p-8 text-center">{t('empty')}</p> : null}
        <DraftLine draft={draft} />
        {bringing ? <BroughtIn onClose={() => setBringing(false)} /> : null}
      </VisitFrame>
    </WorkingProvider>
  );
}
