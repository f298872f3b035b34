'use client';
import { useTranslations } from 'use-intl';
import { EYES, formatAcuity, sightOfBoth, type Eye, type EyeAcuities } from '@/core';
import { formatDay } from '@/i18n/format';
import { useEyeWords } from '../common/eyeWords';
import { useVisit } from '../common/visit/VisitProvider';

const READ: readonly (keyof EyeAcuities)[] = ['glasses', 'lens', 'over', 'pinhole'];

/** What each eye sees today, with what it saw with glasses before: whoever the wearer is sent to asks for it first. */
export function Sight() {
  const t = useTranslations('print');
  const eyes = useEyeWords();
  const { record, eye } = useVisit();
  const notation = record.house.settings.acuity;
  const words = (acuity: number | null | undefined): string => (acuity === null || acuity === undefined ? t('sightUnread') : formatAcuity(acuity, notation));
  const before = (e: Eye) => record.earlierRefractions.find((r) => r.eye === e && r.acuityLogMar !== null);
  const rows = READ.filter((what) => EYES.some((e) => eye(e).acuities[what] !== null));
  const both = sightOfBoth(record.facts.acuitiesBoth, { right: eye('right').onEye?.rootId ?? null, left: eye('left').onEye?.rootId ?? null });
  const anyBefore = EYES.some((e) => before(e));
  return (
    <section data-testid="sight">
      <h2>{t('sight')}</h2>
      {rows.length === 0 && !anyBefore ? (
        <p>{t('sightNone')}</p>
      ) : (
        <table className="ledger">
          <thead>
            <tr>
              <th scope="col" aria-label={t('sight')} />
              {EYES.map((e) => (
                <th key={e} scope="col">
                  {eyes.name(e)}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((what) => (
              <tr key={what}>
                <th scope="row">{t(`sightRows.${what}`)}</th>
                {EYES.map((e) => (
                  <td key={e}>{words(eye(e).acuities[what])}</td>
                ))}
              </tr>
            ))}
            {both ? (
              <tr>
                <th scope="row">{t('sightRows.both')}</th>
                <td colSpan={2}>{words(both.current.acuityLogMar)}</td>
              </tr>
            ) : null}
            {anyBefore ? (
              <tr>
                <th scope="row">{t('sightRows.before')}</th>
                {EYES.map((e) => {
                  const row = before(e);
                  return (
                    <td key={e}>{row ? t('sightOn', { acuity: words(row.acuityLogMar), day: formatDay(row.observedAt.slice(0, 10)) }) : t('sightUnread')}</td>
                  );
                })}
              </tr>
            ) : null}
          </tbody>
        </table>
      )}
    </section>
  );
}
