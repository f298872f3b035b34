'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import exerciseWords from '@/i18n/messages/en/exercise.messages.json';
import { withWords } from '@/i18n/withWords';
import { nextScenario, scenariosFor, type Scenario, type ScenarioAnswer, type ScenariosFor } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';

interface Answered {
  readonly scenario: Scenario;
  readonly right: boolean;
}

/** What happened, and what one does: answered on this screen, judged by the server, repeated until it is right. */
function IsItSafePart({
  lessonId,
  of,
  answers,
  onDone,
}: {
  readonly lessonId: string;
  readonly of: ScenariosFor;
  readonly answers: readonly ScenarioAnswer[];
  readonly onDone: () => void;
}) {
  const t = useTranslations('exercise');
  const words = useWordsOf('exercise');
  const [given, setGiven] = useState<readonly ScenarioAnswer[]>(answers);
  const [last, setLast] = useState<Answered | null>(null);
  const [state, setState] = useState<'ready' | 'busy' | 'away'>('ready');
  const cases = scenariosFor(of);
  const scenario = last?.scenario ?? nextScenario(cases, given);
  const answer = async (asked: Scenario, choice: string): Promise<void> => {
    setState('busy');
    try {
      const sent = await fetch('/api/screen/answer', {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify({ lessonId, scenario: asked.id, choice }),
        signal: AbortSignal.timeout(8000),
      });
      const said = (await sent.json()) as { readonly ok: boolean; readonly value?: { readonly right: boolean } };
      if (!said.ok || !said.value) throw new Error('refused');
      setLast({ scenario: asked, right: said.value.right });
      setState('ready');
    } catch {
      setState('away');
    }
  };
  if (!scenario)
    return (
      <div className="show-plain">
        <h1>{t('safe.done')}</h1>
        <button type="button" className="btn btn-act show-button" onClick={onDone}>
          {t('close')}
        </button>
      </div>
    );
  return (
    <div className="show-plain" data-testid="is-it-safe" data-scenario={scenario.id} aria-live="polite">
      <p>{t('safe.title')}</p>
      <h1>{words(`safe.cases.${scenario.id}.what`)}</h1>
      {last ? (
        <>
          <p className="show-answer">{`${t(last.right ? 'safe.right' : 'safe.wrong')} ${words(`safe.cases.${scenario.id}.why`)}`}</p>
          <button
            type="button"
            className="btn btn-act show-button"
            onClick={() => {
              setGiven([...given, { scenario: last.scenario.id, right: last.right }]);
              setLast(null);
            }}
          >
            {t('next')}
          </button>
        </>
      ) : (
        <p className="show-choices">
          {scenario.choices.map((choice) => (
            <button key={choice} type="button" className="btn show-button" disabled={state === 'busy'} onClick={() => void answer(scenario, choice)}>
              {words(`safe.cases.${scenario.id}.${choice}`)}
            </button>
          ))}
        </p>
      )}
      {state === 'away' ? <p role="status">{t('away')}</p> : null}
    </div>
  );
}

export const IsItSafe = withWords({ exercise: exerciseWords }, IsItSafePart);
