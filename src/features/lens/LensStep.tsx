'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useEffect, useRef, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useKey } from '../common/keys';
import { useTranslations } from 'use-intl';
import { droppedLenses, EYES, formatRefraction, isDropped, kindAsked, type Eye } from '@/core';
import { Field } from '@/ui/Field';
import { Button } from '@/ui/Button';
import { KeyCap, Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useBlurWorking } from '../common/blurWorking';
import { useProblemWords, problemAt } from '../common/words';
import { OpenWorking, WorkingProvider, type WorkingBlock } from '../common/Working';
import { CandidateRow } from './CandidateRow';
import { DecisionLine } from '../common/visit/DecisionLine';
import { DraftLine } from '../common/visit/DraftLine';
import { useDraft } from '../common/visit/useDraft';
import { useEyeWords } from '../common/eyeWords';
import { VisitFrame } from '../common/visit/VisitFrame';
import { useVisit } from '../common/visit/VisitProvider';
import { useExpectedLines } from './expected';
import { inDrawer } from '../common/visit/candidates';
import { RangeOfFamily } from '../common/range/RangeOfFamily';
import { Compare } from './Compare';
import { LeftOutList } from './LeftOutList';
import { SIDE_BY_SIDE, specOf, toggled, type Chosen, type Row } from './model';
import { Narrow } from './Narrow';
import { useLensList } from './useLensList';

/** The nearest makeable lens of every family for both eyes, and one of them on the eye. */
export function LensStep() {
  const t = useTranslations('lens');
  const kind = useTranslations('kind');
  const words = useProblemWords();
  const blurWorking = useBlurWorking();
  const expectedLines = useExpectedLines();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, eye, health, run, busy, problem } = useVisit();
  const draft = useDraft('lens');
  const [panel, setPanel] = useState<'compare' | 'map' | null>(null);
  const lens = useLensList(draft);
  const { needs, adds, apart, lead, shape, without, anyway, product, list, first, compared, rows, meanK, chosen, leadCode, leadRow, showAll } = lens;
  // What the kind decided leads to may stand below the first lines.
  const firstCode = first?.family.code;
  const arrived = useRef(false);
  useEffect(() => {
    if (arrived.current || firstCode === undefined) return;
    arrived.current = true;
    if (firstCode !== list.rows[0]?.family.code) document.getElementById(`candidate-${firstCode}`)?.scrollIntoView({ block: 'nearest' });
  }, [firstCode, list.rows]);

  const choose = (code: string): void => {
    if (apart) draft.set(`${lead}Family`, code);
    else {
      draft.set('rightFamily', '');
      draft.set('leftFamily', '');
      draft.set('family', code);
    }
  };
  const move = (by: number): void => {
    const at = rows.findIndex((r) => r.family.code === leadCode);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
    if (!next) return;
    choose(next.family.code);
    document.getElementById(`candidate-${next.family.code}`)?.scrollIntoView({ block: 'nearest' });
  };
  useHotkeys(
    'down',
    (e) => {
      e.preventDefault();
      move(1);
    },
    [rows, leadCode, apart, lead],
  );
  useHotkeys(
    'up',
    (e) => {
      e.preventDefault();
      move(-1);
    },
    [rows, leadCode, apart, lead],
  );
  const setApart = (): void => {
    draft.set('apart', apart ? '' : 'yes');
    if (apart) {
      draft.set('rightFamily', '');
      draft.set('leftFamily', '');
    }
  };
  const compare = (code: string): void => draft.set('compare', toggled(compared, code).join(','));
  useKey('c', () => (leadCode === undefined ? undefined : compare(leadCode)), [leadCode, compared.join(',')]);
  useKey('v', () => (compared.length > 0 ? setPanel('compare') : undefined), [compared.join(',')]);
  useKey('m', () => setPanel('map'), []);
  useKey('e', setApart, [apart]);
  useKey('r', () => (apart ? draft.set('lead', 'right') : undefined), [apart]);
  useKey('l', () => (apart ? draft.set('lead', 'left') : undefined), [apart]);

  const missing = EYES.filter((e) => chosen[e] && inDrawer(record, chosen[e].family.code, chosen[e].lens, chosen[e].variant) === 0);
  const ready = EYES.filter((e) => chosen[e]);
  const dropped = droppedLenses(
    health.answers,
    record.handOvers.flatMap((c) => (c.current && c.current.visitId !== record.visit.id ? [record.lenses[c.current.lensId]?.familyName ?? ''] : [])),
  );
  const again = EYES.map((e) => chosen[e]?.family.name).find((name) => name !== undefined && isDropped(name, dropped)) ?? null;
  const sameLensReason = draft.body.sameLens ?? '';
  const putOn = async (): Promise<void> => {
    const spec = { right: chosen.right && specOf(chosen.right), left: chosen.left && specOf(chosen.left) };
    const done = await run('putOnTrials', { ...spec, ...(again ? { sameLensReason } : {}) }, t('putOnDone'));
    if (done?.ok) {
      draft.clear();
      router.push(`/visits/${record.visit.id}/on-eye`);
    }
  };

  const blocks: WorkingBlock[] = EYES.flatMap((e) => {
    const c = chosen[e];
    const need = c ? (rows.find((r) => r.family.code === c.family.code)?.needs[e] ?? needs[e]) : null;
    if (!c || !need) return [];
    const block = blurWorking(`blur-${e}`, eyeWords.short(e), need, c.lens);
    return [{ ...block, lines: [...block.lines, ...expectedLines(need, c)] }];
  });
  const asks = (e: Eye) => {
    const need = needs[e];
    if (!need) return <span className="label">{t('noNeed')}</span>;
    return (
      <span>
        <span className="power">{formatRefraction(need)}</span>
        {adds[e] === null ? null : <span className="note block">{t('asksAdd', { add: adds[e].toFixed(2) })}</span>}
      </span>
    );
  };
  const behind = first && list.rows[0] && first !== list.rows[0] ? first : null;
  const none = EYES.every((e) => needs[e] === null);
  const blocked = EYES.some((e) => eye(e).verdict.routes?.agree === false);

  return (
    <WorkingProvider ids={blocks.map((b) => b.id)} initial="blur-right">
      <VisitFrame
        step="lens"
        keys={
          <>
            <span>
              <KeyCap>{'↑'}</KeyCap> <KeyCap>{'↓'}</KeyCap> {t('keyChoose')}
            </span>
            <span>
              <KeyCap>{'E'}</KeyCap> {t('keyApart')}
            </span>
            <span>
              <KeyCap>{'C'}</KeyCap> {t('compareKey')}
            </span>
            <span>
              <KeyCap>{'M'}</KeyCap> {t('mapKey')}
            </span>
            <span>
              <KeyCap>{'W'}</KeyCap> {t('keyWorking')}
            </span>
          </>
        }
        margin={
          <>
            <h2 className="mb-3">{t('reasoning')}</h2>
            {EYES.map((e) => {
              const need = needs[e];
              return need ? (
                <p key={e} className="mb-3">
                  <strong>{t(`kind.${kindAsked(need)}`, { eye: eyeWords.short(e), cylinder: Math.abs(need.cylinder).toFixed(2) })}</strong>
                </p>
              ) : (
                <p key={e} className="mb-3 label">
                  {t('eyeNotAsked', { eye: eyeWords.short(e) })}
                </p>
              );
            })}
            {EYES.map((e) =>
              chosen[e] && chosen[e].lens.tiesWithPrevious === false && rowOf(rows, chosen[e])?.best[e][1]?.tiesWithPrevious ? (
                <p key={`tie-${e}`} className="mb-3">
                  {t('twin', { eye: eyeWords.short(e), power: formatRefraction(rowOf(rows, chosen[e])?.best[e][1]?.power ?? chosen[e].lens.power) })}
                </p>
              ) : null,
            )}
            {behind ? (
              <p className="mb-3" data-testid="behind">
                <Stated state="watch">
                  {t('leads', { place: list.rows.indexOf(behind) + 1, behind: behind.behind.toFixed(2) })} {t('leadsFirst')}
                </Stated>
              </p>
            ) : null}
            {missing.map((e) => (
              <p key={`m-${e}`} className="mb-3">
                <Stated state="stop">{t('noneInDrawer', { eye: eyeWords.short(e) })}</Stated>
              </p>
            ))}
            <p className="note">{t('basis')}</p>
            <OpenWorking blocks={blocks} />
          </>
        }
        actions={
          <>
            {compared.length > 0 ? (
              <Button keys={['V']} onClick={() => setPanel('compare')}>
                {t('compareOpen', { count: compared.length })}
              </Button>
            ) : null}
            <Button keys={['M']} disabled={!leadRow} onClick={() => setPanel('map')}>
              {t('map')}
            </Button>
            <Button keys={['E']} onClick={setApart} aria-pressed={apart}>
              {apart ? t('together') : t('apart')}
            </Button>
            <Button
              look="act"
              keys={['⏎']}
              data-enter="true"
              disabled={busy || ready.length === 0 || missing.length > 0 || record.visit.closedAt !== null}
              onClick={() => void putOn()}
            >
              {ready.length === 2 ? t('putOnBoth') : ready[0] ? t('putOnOne', { eye: eyeWords.short(ready[0]) }) : t('putOnNone')}
            </Button>
          </>
        }
      >
        <Spine label={t('title')}>
          <SpineHead words={eyeWords.heads} label={t('facing')} />
          <SpineRow label={t('asks')} note={t('asksNote')} right={asks('right')} left={asks('left')} />
          {apart ? (
            <SpineRow
              label={t('chooseFor')}
              right={
                needs.right ? (
                  <LeadButton
                    eye="right"
                    lead={lead}
                    name={eyeWords.short('right')}
                    onLead={() => draft.set('lead', 'right')}
                    none={chosen.right === null}
                    onNone={() => draft.set('rightFamily', chosen.right === null ? '' : 'none')}
                  />
                ) : null
              }
              left={
                needs.left ? (
                  <LeadButton
                    eye="left"
                    lead={lead}
                    name={eyeWords.short('left')}
                    onLead={() => draft.set('lead', 'left')}
                    none={chosen.left === null}
                    onNone={() => draft.set('leftFamily', chosen.left === null ? '' : 'none')}
                  />
                ) : null
              }
            />
          ) : null}
          <div className="kind-band" data-testid="kind-band">
            <span className="label">{kind('title')}</span>
            <span className="flex-1">
              <DecisionLine />
            </span>
            <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/kind`} prefetch={false}>
              {kind('kindFirst')}
            </Link>
          </div>
          {none ? null : (
            <Narrow shape={shape} without={without} onShape={(value) => draft.set('shape', value)} onWithout={(value) => draft.set('without', value)} />
          )}
          {again ? (
            <div className="px-6 py-3 max-w-[720px]">
              <Field
                label={<Stated state="stop">{words('sameLensAgain', { family: again })}</Stated>}
                value={sameLensReason}
                onValue={(value) => draft.set('sameLens', value)}
                maxLength={400}
                problem={problemAt(problem, 'sameLensReason') ? words('reasonRequired') : null}
              />
            </div>
          ) : null}
          {none ? (
            <div className="p-8 text-center">
              <p className="mb-4">{blocked ? t('blocked') : t('nothingToRank')}</p>
              <Button onClick={() => router.push(`/visits/${record.visit.id}/${blocked ? 'on-eye' : 'power'}`)}>{blocked ? t('toOnEye') : t('toPower')}</Button>
            </div>
          ) : (
            <div role="radiogroup" aria-label={t('listLabel')}>
              {rows.map((row) => (
                <CandidateRow
                  key={row.family.code}
                  row={row}
                  picked={{
                    right: chosen.right?.family.code === row.family.code ? chosen.right : null,
                    left: chosen.left?.family.code === row.family.code ? chosen.left : null,
                  }}
                  lead={leadCode === row.family.code}
                  meanK={meanK}
                  compared={compared.includes(row.family.code)}
                  onCompare={compared.length < SIDE_BY_SIDE || compared.includes(row.family.code) ? () => compare(row.family.code) : null}
                  needs={row.needs}
                  asks={{ right: needs.right !== null, left: needs.left !== null }}
                  onChoose={() => choose(row.family.code)}
                  onPower={(e, index) => draft.set(`${e}Power:${row.family.code}`, String(index))}
                  onVariant={(e, key) => draft.set(`${e}Variant:${row.family.code}`, key)}
                />
              ))}
            </div>
          )}
        </Spine>
        {!none && list.rows.length > rows.length ? (
          <div className="p-4 text-center">
            <Button onClick={() => showAll()}>{t('more', { count: list.rows.length - rows.length })}</Button>
          </div>
        ) : null}
        {none ? null : <LeftOutList leftOut={list.leftOut} onAnyway={(code) => draft.set('anyway', [anyway, code].filter((c) => c !== '').join(','))} />}
        {problem?.kind === 'invalid'
          ? EYES.map((e) => {
              const p = problemAt(problem, e);
              return p ? (
                <p key={e} className="px-6 py-1">
                  <Stated state="stop">{`${eyeWords.short(e)}: ${words(p.code, p.data)}`}</Stated>
                </p>
              ) : null;
            })
          : null}
        <p className="note text-center px-8 py-3">{t('rule', { tolerance: record.house.settings.rankTolerance.toFixed(2) })}</p>
        <DraftLine draft={draft} />
        <Panel open={panel === 'compare'} onClose={() => setPanel(null)} title={t('compareTitle')} wide>
          <Compare
            rows={rows.filter((r) => compared.includes(r.family.code))}
            needs={needs}
            meanK={meanK}
            product={product}
            onProduct={(id) => draft.set('product', id)}
            onRemove={compare}
            onChoose={(code) => {
              choose(code);
              setPanel(null);
            }}
          />
        </Panel>
        <Panel
          open={panel === 'map' && leadRow !== undefined}
          onClose={() => setPanel(null)}
          title={leadRow ? t('mapTitle', { family: leadRow.family.name }) : ''}
          wide
        >
          {leadRow ? (
            <RangeOfFamily
              family={leadRow.family}
              drawer={record.stock
                .filter((s) => s.familyCode === leadRow.family.code && s.count > 0)
                .map((s) => ({ sphere: s.sphereD, cylinder: s.cylinderD, axis: s.axisDeg }))}
              needs={needs}
              adds={adds}
            />
          ) : null}
        </Panel>
      </VisitFrame>
    </WorkingProvider>
  );
}

const rowOf = (rows: readonly Row[], chosen: Chosen): Row | undefined => rows.find((r) => r.family.code === chosen.family.code);

function LeadButton({
  eye,
  lead,
  name,
  onLead,
  none,
  onNone,
}: {
  readonly eye: Eye;
  readonly lead: Eye;
  readonly name: string;
  readonly onLead: () => void;
  readonly none: boolean;
  readonly onNone: () => void;
}) {
  const t = useTranslations('lens');
  return (
    <div className="flex gap-3 items-center">
      <Button aria-pressed={lead === eye} onClick={onLead} keys={[name]}>
        {lead === eye ? t('choosing', { eye: name }) : t('chooseEye', { eye: name })}
      </Button>
      <button type="button" className="btn btn-quiet" aria-pressed={none} onClick={onNone}>
        {none ? t('fitIt') : t('leaveOut')}
      </button>
    </div>
  );
}
