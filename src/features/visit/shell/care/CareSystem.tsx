'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { dayIn, may } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { PeroxideCaution } from '../../../common/PeroxideCaution';
import { Correctable } from '../Correct';
import { useVisit } from '../VisitProvider';
import { CareCard, CareFindings } from './CareCard';
import { careOfVisit } from './model';
import { PrescribeCare } from './PrescribeCare';
import careProblems from '@/i18n/messages/en/careProblems.messages.json';
import careWords from '@/i18n/messages/en/careSystem.messages.json';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import peroxideWords from '@/i18n/messages/en/peroxide.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import { withWords } from '@/i18n/withWords';

/** The care system of this wearer: its card, why this one, and what is to be said of it; a prescriber names it here. */
function CareSystemSection() {
  const t = useTranslations('careSystem');
  const { record, hasLibrary, health, eye } = useVisit();
  const [naming, setNaming] = useState(false);
  if (!hasLibrary) return null;
  const care = careOfVisit(record, health, eye);
  const { prescribed, product } = care;
  const mayName = may(record.session.viewer.roles, 'sign') && record.visit.closedAt === null;
  const chain = record.careSystems.find((c) => c.current?.id === prescribed?.id);
  if (care.reusable === false)
    return (
      <section className="p-6 border-t border-rule-2" data-testid="care-system">
        <h2 className="mb-2">{t('title')}</h2>
        <Stated state="ok">{t('singleUse')}</Stated>
      </section>
    );
  return (
    <section className="p-6 border-t border-rule-2" data-testid="care-system">
      <h2 className="border-b border-rule-2 pb-2 mb-3">{t('title')}</h2>
      {prescribed ? (
        <div className="grid wide:grid-cols-2 gap-x-6">
          <div>
            <p className="power">{prescribed.productName}</p>
            <p className="label">
              {product ? t('ofMaker', { system: t(`systems.${product.system}`), maker: product.maker }) : null} · {t(`for.${prescribed.chosenFor}`)}
              {prescribed.note ? `: ${prescribed.note}` : null}
            </p>
            <p className="note mb-2">
              {t('by', { name: prescribed.recordedByName, day: formatDay(dayIn(prescribed.observedAt, record.session.practice.timeZone)) })}
            </p>
            {prescribed.overrideNote ? (
              <p className="label">
                {t('overridden', { faults: prescribed.overridden.map((f) => t(`short.${f}`)).join(', ') })} {prescribed.overrideNote}
              </p>
            ) : null}
            <CareFindings findings={care.findings} name={prescribed.productName} />
            {chain && prescribed.visitId === record.visit.id ? <Correctable kind="careSystem" chain={chain} show={(row) => row.productName} /> : null}
          </div>
          {product ? <CareCard product={product} /> : null}
        </div>
      ) : (
        <p className="mb-2">
          <Stated state="watch">{t('none')}</Stated> <span className="label">{mayName ? null : t('noneTeach')}</span>
        </p>
      )}
      <PeroxideCaution product={product} />
      {mayName && (naming || !prescribed) ? (
        <PrescribeCare key={prescribed?.id ?? ''} care={care} onDone={() => setNaming(false)} />
      ) : mayName ? (
        <Button onClick={() => setNaming(true)}>{t('change')}</Button>
      ) : prescribed ? (
        <p className="note">{t('onlyPrescriber')}</p>
      ) : null}
    </section>
  );
}

export const CareSystem = withWords(
  { careSystem: careWords, problems: careProblems, peroxide: peroxideWords, correct: correctWords, powerField: powerFieldWords },
  CareSystemSection,
);
