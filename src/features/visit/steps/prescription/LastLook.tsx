'use client';
import { useTranslations } from 'use-intl';
import lastLookWords from '@/i18n/messages/en/lastLook.messages.json';
import { withWords } from '@/i18n/withWords';
import { useWordsOf } from '@/i18n/wordsOf';
import { formatRefraction, type Eye, type LookLine } from '@/core';
import { ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { problemAt, useProblemWords } from '../../../common/words';
import { sentenceKey } from './model';
import type { Signing } from './useSigning';

/** The last look at each eye: what is as it should be in one line, what is not with the sentence it asks for. */
function LastLookRow({ signing }: { readonly signing: Signing }) {
  const t = useTranslations('lastLook');
  const { looks, plans } = signing;
  const of = (eye: Eye) => (plans[eye].leftOut || plans[eye].blocked === 'nothingMeasured' ? null : <Look signing={signing} eye={eye} lines={looks[eye]} />);
  return <SpineRow label={t('title')} note={t('note')} right={of('right')} left={of('left')} />;
}

function Look({ signing, eye, lines }: { readonly signing: Signing; readonly eye: Eye; readonly lines: readonly LookLine[] }) {
  const t = useWordsOf('lastLook');
  const fine = lines.filter((l) => l.state === 'ok' && l.code !== 'addNone' && l.code !== 'turnNone');
  return (
    <span className={`flex flex-col gap-2 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`look-${eye}`}>
      {fine.length > 0 ? <Stated state="ok">{fine.map((l) => t(`c.${l.code}`)).join(' · ')}</Stated> : null}
      {lines.map((line) =>
        line.state === 'ok' ? null : line.state === 'asks' ? (
          <SentenceField key={line.code} signing={signing} eye={eye} line={line} />
        ) : (
          <span key={line.code} className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
            <Stated state={line.state}>{t(`c.${line.code}`)}</Stated>
            {line.code === 'measureAgain' ? <Pick signing={signing} eye={eye} /> : null}
          </span>
        ),
      )}
    </span>
  );
}

/** Which of two that do not agree decides: a prescriber picks, and says why. */
function Pick({ signing, eye }: { readonly signing: Signing; readonly eye: Eye }) {
  const t = useTranslations('lastLook');
  const { fromRefraction, fromOverRefraction } = signing.states[eye].verdict;
  if (!signing.maySign || !fromRefraction || !fromOverRefraction) return <span className="note">{t('pickNote')}</span>;
  const press = (what: 'refraction' | 'overRefraction', power: string) => (
    <button type="button" className="btn btn-plain" onClick={() => signing.draft.set(`${eye}Pick`, what)}>
      {t(`pick.${what}`, { power })}
    </button>
  );
  return (
    <span className={`flex gap-2 flex-wrap ${eye === 'right' ? 'justify-end' : ''}`}>
      {press('refraction', formatRefraction(fromRefraction))}
      {press('overRefraction', formatRefraction(fromOverRefraction.need))}
    </span>
  );
}

/** What is overridden, what it costs, and the sentence that is kept with the prescription. */
function SentenceField({ signing, eye, line }: { readonly signing: Signing; readonly eye: Eye | null; readonly line: LookLine }) {
  const t = useTranslations('lastLook');
  const tOf = useWordsOf('lastLook');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { problem } = useVisit();
  const { draft, maySign } = signing;
  const key = sentenceKey(eye, line.code);
  const said = tOf(`c.${line.code}`);
  const fault = problemAt(problem, 'overrides', eye ?? 'wearer', line.code);
  const id = `why-${eye ?? 'wearer'}-${line.code}`;
  return (
    <span className={`flex flex-col gap-1 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <Stated state="stop">
        {said}
        {line.cost === null || line.cost < 0.005 ? '' : t('cost', { blur: line.cost.toFixed(2) })}
      </Stated>
      {maySign ? (
        <>
          <textarea
            id={id}
            className="input"
            rows={2}
            aria-label={eye ? t('whyEye', { eye: eyeWords.name(eye), what: said }) : t('why', { what: said })}
            aria-invalid={fault ? true : undefined}
            aria-describedby={`${id}-note`}
            placeholder={t('placeholder')}
            value={draft.body[key] ?? ''}
            onChange={(event) => draft.set(key, event.target.value)}
          />
          <span id={`${id}-note`} aria-live="polite">
            {fault ? <ProblemLine>{words(fault.code, fault.data)}</ProblemLine> : null}
          </span>
        </>
      ) : (
        <span className="note">{t('prescriberOnly')}</span>
      )}
    </span>
  );
}

export const LastLook = withWords({ lastLook: lastLookWords }, LastLookRow);
export const Sentence = withWords({ lastLook: lastLookWords }, SentenceField);
