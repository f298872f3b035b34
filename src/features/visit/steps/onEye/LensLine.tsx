'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { eyeState, formatAcuity, formatRefraction, type Eye, type EyeState, type FactChain, type OnEyeFact } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { LensToken } from '@/ui/LensToken';
import { Panel } from '@/ui/Panel';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { contextsOf } from '../../shell/eyes';
import { ReasonPanel } from '../../shell/ReasonPanel';
import { useVisit } from '../../shell/VisitProvider';
import { useMadeWords } from './OrderRows';

type Tried = FactChain<OnEyeFact> & { readonly current: OnEyeFact };

/** Every lens tried on each eye in this visit, newest by the spine: what was read through it, and which one is decided on. */
export function LensLine() {
  const t = useTranslations('lensLine');
  const { record } = useVisit();
  const [open, setOpen] = useState<readonly string[]>([]);
  const ofEye = (e: Eye): Tried[] => record.facts.onEye.filter((c): c is Tried => c.current?.eye === e);
  // A single lens is the one on the eye: there is no line to look along yet.
  if (Math.max(ofEye('right').length, ofEye('left').length) < 2) return null;
  const show = (id: string): void => setOpen((now) => [...now.filter((x) => x !== id), id].slice(-2));
  const cell = (e: Eye) => {
    // Newest by the spine: last on the left side of it, first on the right.
    const line = e === 'right' ? ofEye(e) : [...ofEye(e)].reverse();
    return (
      <span className="lens-line">
        {line.map((chain) => (
          <Station key={chain.rootId} eye={e} chain={chain} onOpen={() => show(chain.rootId)} />
        ))}
      </span>
    );
  };
  const all = [...ofEye('right'), ...ofEye('left')];
  const shown = open.flatMap((id) => all.filter((c) => c.rootId === id));
  return (
    <>
      <SpineRow label={t('title')} note={t('note')} right={cell('right')} left={cell('left')} />
      <Panel open={shown.length > 0} onClose={() => setOpen([])} title={shown.length > 1 ? t('compare') : t('one')} wide={shown.length > 1}>
        <div className={shown.length > 1 ? 'grid narrow:grid-cols-2 gap-8' : ''}>
          {shown.map((chain) => (
            <Story key={chain.rootId} chain={chain} />
          ))}
        </div>
        {shown.length === 1 && all.length > 1 ? (
          <div className="mt-4">
            <div className="field-label">{t('against')}</div>
            <div className="flex gap-2 flex-wrap">
              {all
                .filter((c) => c.rootId !== shown[0]?.rootId)
                .map((c) => (
                  <Button key={c.rootId} onClick={() => show(c.rootId)}>
                    <Name chain={c} />
                  </Button>
                ))}
            </div>
          </div>
        ) : null}
      </Panel>
    </>
  );
}

/** One lens of the line with the state its own readings come to. */
function useTried(chain: Tried): { readonly state: EyeState; readonly decided: boolean } {
  const { record, lensOf, eye } = useVisit();
  const e = chain.current.eye;
  const context = { ...contextsOf(record)[e], lensOnEyeId: chain.rootId };
  return { state: eyeState(record.facts, e, lensOf, record.session.settings, context), decided: eye(e).onEye?.rootId === chain.rootId };
}

function Name({ chain }: { readonly chain: Tried }) {
  const t = useTranslations('lensLine');
  const eyeWords = useEyeWords();
  const row = chain.current;
  const eye = eyeWords.short(row.eye);
  return <>{row.source === 'trial' ? t('trial', { eye, number: row.trialNumber ?? 1 }) : t(row.source === 'broughtIn' ? 'brought' : 'worn', { eye })}</>;
}

function Station({ eye, chain, onOpen }: { readonly eye: Eye; readonly chain: Tried; readonly onOpen: () => void }) {
  const t = useTranslations('lensLine');
  const { record } = useVisit();
  const { state, decided } = useTried(chain);
  const shortTurn = (degrees: number): string => (degrees === 0 ? '0°' : t(degrees > 0 ? 'turnLeft' : 'turnRight', { degrees: Math.abs(degrees) }));
  const lens = chain.current.lensId ? record.lenses[chain.current.lensId] : undefined;
  const turn = Math.round(state.turn?.mean ?? 0);
  const fit = state.fit?.current.verdict ?? null;
  return (
    <button type="button" className="lens-station" aria-pressed={decided} onClick={onOpen} data-testid={`station-${eye}-${chain.current.trialNumber ?? 0}`}>
      <LensToken
        size={36}
        ring={fit ?? 'unjudged'}
        geometry={lens?.geometry ?? 'sphere'}
        rotationLeft={turn}
        axisGiven={lens && lens.cylinderD !== 0 ? lens.axisDeg - turn : null}
        axisAsked={null}
        label={lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : t('unknown')}
      />
      <span className="flex flex-col items-start">
        <span className="lens-station-name">
          <Name chain={chain} />
        </span>
        <span className="note">{[fit ? t(`fit.${fit}`) : t('notJudged'), state.turn ? shortTurn(turn) : null].filter((x) => x !== null).join(', ')}</span>
      </span>
    </button>
  );
}

/** Everything read through one lens: the same list for each, so that two can be read across. */
function Story({ chain }: { readonly chain: Tried }) {
  const t = useTranslations('lensLine');
  const made = useMadeWords();
  const eyeWords = useEyeWords();
  const { record, run } = useVisit();
  const { state, decided } = useTried(chain);
  const row = chain.current;
  const lens = row.lensId ? record.lenses[row.lensId] : undefined;
  const zone = record.session.practice.timeZone;
  const { acuity } = record.session.settings;
  const sight = (read: number | null): string => (read === null ? t('notRead') : formatAcuity(read, acuity));
  const said = [
    [t('lens'), lens ? made({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }, lens.geometry) : (row.description ?? t('unknown'))],
    [t('family'), lens ? `${lens.familyName} ${lens.baseCurveMm?.toFixed(1) ?? ''} / ${lens.diameterMm?.toFixed(1) ?? ''}` : ''],
    [t('on'), formatTime(row.putOnAt, zone)],
    [t('fitRow'), state.fit ? t(`fit.${state.fit.current.verdict}`) : t('notJudged')],
    [
      t('judged'),
      state.fit ? t('judgedBy', { name: state.fit.current.recordedByName, when: state.fit.current.provisional ? t('early') : t('settled') }) : t('notJudged'),
    ],
    [t('turn'), state.turn ? t('turnLine', { turn: eyeWords.turn(Math.round(state.turn.mean)), count: state.turn.count }) : t('notRead')],
    [
      t('over'),
      state.overRefraction
        ? formatRefraction({
            sphere: state.overRefraction.current.sphereD,
            cylinder: state.overRefraction.current.cylinderD,
            axis: state.overRefraction.current.axisDeg,
          })
        : t('notRead'),
    ],
    [t('sees'), sight(state.acuities.lens)],
    [t('seesOver'), sight(state.acuities.over)],
    [t('comfort'), typeof state.findings.comfort === 'number' ? t('ofTen', { value: state.findings.comfort }) : t('notAsked')],
  ] as const;
  const why = record.facts.choices.filter((c) => c.lensOnEyeId === chain.rootId);
  return (
    <section data-testid={`story-${chain.rootId}`}>
      <h3 className="mb-2">
        <Name chain={chain} /> {decided ? <span className="note">{t('decided')}</span> : null}
      </h3>
      <dl className="story">
        {said.map(([what, value]) => (
          <div key={what} className="working-line">
            <dt>{what}</dt>
            <dd>{value}</dd>
          </div>
        ))}
        {why.map((c) => (
          <div key={c.chosenAt} className="working-line">
            <dt>{t('why')}</dt>
            <dd>{t('whyLine', { why: c.why, name: c.chosenByName })}</dd>
          </div>
        ))}
      </dl>
      {!decided && record.visit.closedAt === null ? (
        <ReasonPanel
          open={t('takeUp')}
          title={t('takeUpTitle')}
          text={t('takeUpText')}
          doWords={t('takeUpDo')}
          onReason={async (reason) => (await run('chooseLens', { lensOnEyeId: chain.rootId, why: reason }, t('takenUp')))?.ok === true}
        />
      ) : null}
    </section>
  );
}
