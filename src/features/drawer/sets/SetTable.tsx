import { useTranslations } from 'use-intl';
import { expiryState, formatRefraction, type SetLens } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { useServer } from '../../common/ServerProvider';
import { useReadyWords } from '../../common/setReady';

/** One set, its lenses from the steepest to the flattest. */
export function SetTable({
  lenses,
  busy,
  onDisinfect,
  onOpen,
}: {
  readonly lenses: readonly SetLens[];
  readonly busy: boolean;
  readonly onDisinfect: (lens: SetLens) => void;
  readonly onOpen: (id: string) => void;
}) {
  const t = useTranslations('sets');
  const ready = useReadyWords();
  const { session } = useServer();
  const [first] = lenses;
  if (!first) return null;
  const { setName, setCode, disinfectWith, disinfectMinutes } = first;
  return (
    <section className="px-6 pt-4 max-w-[960px]" aria-label={setName} data-testid={`set-${setCode}`}>
      <h2>{setName}</h2>
      <p className="note">
        {disinfectWith === null ? t('noInstructions') : t('instructions', { how: disinfectWith, minutes: disinfectMinutes ?? 0 })} {t('ownNumbers')}
      </p>
      <table className="ledger">
        <thead>
          <tr>
            <th scope="col">{t('number')}</th>
            <th scope="col">{t('curve')}</th>
            <th scope="col">{t('power')}</th>
            <th scope="col">{t('state')}</th>
            <th scope="col" className="drop-narrow">
              {t('expires')}
            </th>
            <th aria-label={t('act')} />
          </tr>
        </thead>
        <tbody>
          {lenses.map((lens) => {
            const { state, mark, words } = ready(lens);
            const old = expiryState(lens.expiresOn, session.today);
            const power = formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg });
            return (
              <tr key={lens.id} data-testid={`lens-${setCode}-${lens.number}`} data-state={state}>
                <th scope="row">
                  <button
                    type="button"
                    className="btn btn-quiet value"
                    aria-label={t('openLens', { number: lens.number, set: setName })}
                    onClick={() => onOpen(lens.id)}
                  >
                    {lens.number}
                  </button>
                </th>
                <td className="value">{`${lens.baseCurveMm?.toFixed(1) ?? ''} / ${lens.diameterMm?.toFixed(1) ?? ''}`}</td>
                <td className="value">{power}</td>
                <td>
                  <Stated state={mark}>{words}</Stated>
                </td>
                <td className="drop-narrow">
                  {old === 'fine' ? formatDay(lens.expiresOn) : <Stated state={old === 'soon' ? 'watch' : 'stop'}>{formatDay(lens.expiresOn)}</Stated>}
                </td>
                <td className="text-right">
                  {state === 'used' ? (
                    <Button disabled={busy} aria-label={t('disinfectOne', { number: lens.number })} onClick={() => onDisinfect(lens)}>
                      {t('disinfect')}
                    </Button>
                  ) : null}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </section>
  );
}
