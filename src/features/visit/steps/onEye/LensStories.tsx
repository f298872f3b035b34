'use client';
import { useTranslations } from 'use-intl';
import { formatAcuity, formatRefraction } from '@/core';
import { formatTime } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Panel } from '@/ui/Panel';
import { useEyeWords } from '../../../common/eyeWords';
import { ReasonPanel } from '../../shell/ReasonPanel';
import { useVisit } from '../../shell/VisitProvider';
import { useMadeWords } from './OrderRows';
import { TriedName, useTried, type Tried } from './tried';
import lensStoryWords from '@/i18n/messages/en/lensStory.messages.json';
import { withWords } from '@/i18n/withWords';

interface Shown {
  /** One lens, or two to compare. */
  readonly shown: readonly Tried[];
  /** Every lens tried in this visit. */
  readonly all: readonly Tried[];
  readonly onShow: (rootId: string) => void;
  readonly onClose: () => void;
}

function Stories({ shown, all, onShow, onClose }: Shown) {
  const t = useTranslations('lensStory');
  const two = shown.length > 1;
  return (
    <Panel open onClose={onClose} title={two ? t('compare') : t('one')} wide={two}>
      <div className={two ? 'grid narrow:grid-cols-2 gap-8' : ''}>
        {shown.map((chain) => (
          <Story key={chain.rootId} chain={chain} />
        ))}
      </div>
      {!two && all.length > 1 ? (
        <div className="mt-4">
          <div className="field-label">{t('against')}</div>
          <div className="flex gap-2 flex-wrap">
            {all
              .filter((c) => c.rootId !== shown[0]?.rootId)
              .map((c) => (
                <Button key={c.rootId} onClick={() => onShow(c.rootId)}>
                  <TriedName chain={c} />
                </Button>
              ))}
          </div>
        </div>
      ) : null}
    </Panel>
  );
}

/** Everything read through one lens: the same list for each, so that two can be read across. */
function Story({ chain }: { readonly chain: Tried }) {
  const t = useTranslations('lensStory');
  const line = useTranslations('lensLine');
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
    [t('lens'), lens ? made({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }, lens.geometry) : (row.description ?? line('unknown'))],
    [t('family'), lens ? `${lens.familyName} ${lens.baseCurveMm?.toFixed(1) ?? ''} / ${lens.diameterMm?.toFixed(1) ?? ''}` : ''],
    [t('on'), formatTime(row.putOnAt, zone)],
    [t('fitRow'), state.fit ? line(`fit.${state.fit.current.verdict}`) : line('notJudged')],
    [
      t('judged'),
      state.fit
        ? t('judgedBy', { name: state.fit.current.recordedByName, when: state.fit.current.provisional ? t('early') : t('settled') })
        : line('notJudged'),
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
        <TriedName chain={chain} /> {decided ? <span className="note">{t('decided')}</span> : null}
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

/** What was read through one lens tried, or through two beside each other. */
export const LensStories = withWords({ lensStory: lensStoryWords }, Stories);
