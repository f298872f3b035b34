'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { CARE_REASONS, type CareReason } from '@/core';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../VisitProvider';
import { CareFindings } from './CareCard';
import type { CareOfVisit } from './model';

/** A care system named by a prescriber: the proposed one stands chosen, so that the common case is one press. */
export function PrescribeCare({ care, onDone }: { readonly care: CareOfVisit; readonly onDone: () => void }) {
  const t = useTranslations('careSystem');
  const words = useProblemWords();
  const { run, busy, problem, record } = useVisit();
  const [productId, setProductId] = useState(care.products[0]?.productId ?? '');
  const [reason, setReason] = useState<CareReason | null>(null);
  const [note, setNote] = useState('');
  const [override, setOverride] = useState('');
  const product = care.products.find((p) => p.productId === productId);
  if (!product) return <p>{t('noProducts')}</p>;
  // Another kind than the proposed one is chosen for a reason of its own: nothing is said for the prescriber.
  const chosenFor = reason ?? (product.system === care.proposal.system ? care.proposal.reason : null);
  const findings = care.findingsOf(product);
  const absolute = findings.some((f) => f.gravity === 'absolute');
  const overridable = findings.some((f) => f.gravity === 'stop');
  const wrong = (path: string): string | null => {
    const found = problemAt(problem, path);
    return found ? words(found.code, found.data) : null;
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (chosenFor === null) return;
    const done = await run('prescribeCare', { productId, chosenFor, note, overrideNote: override }, t('done', { name: product.name }));
    if (done?.ok) onDone();
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="max-w-[760px]" data-testid="prescribe-care">
      <p className="label mb-2">{t('proposed', { system: t(`systems.${care.proposal.system}`), reason: t(`for.${care.proposal.reason}`) })}</p>
      <p className="note">{t('product')}</p>
      <Segment
        label={t('product')}
        kind="wrapping"
        values={care.products.map((p) => p.productId)}
        value={productId}
        word={(id) => care.products.find((p) => p.productId === id)?.name ?? ''}
        onChoose={setProductId}
      />
      <CareFindings findings={findings} name={product.name} />
      <p className="note mt-3">{t('why')}</p>
      <Segment label={t('why')} kind="wrapping" values={CARE_REASONS} value={chosenFor} word={(r) => t(`for.${r}`)} onChoose={setReason} />
      {wrong('chosenFor') ? <p className="problem">{wrong('chosenFor')}</p> : null}
      {chosenFor === 'other' || note !== '' ? <Field label={t('note')} value={note} onValue={setNote} maxLength={400} problem={wrong('note')} /> : null}
      {overridable && !absolute ? (
        <Field label={t('override')} value={override} onValue={setOverride} maxLength={400} hint={t('overrideHint')} problem={wrong('overrideNote')} />
      ) : null}
      <div className="mt-3">
        <Button type="submit" disabled={busy || absolute || chosenFor === null || record.visit.closedAt !== null}>
          {t('prescribe', { name: product.name })}
        </Button>
      </div>
    </form>
  );
}
