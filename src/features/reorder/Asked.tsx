'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { KeyCap, Stated } from '@/ui/marks';
import { problemAt, useProblemWords } from '../common/words';
import type { ReorderPageState } from './useReorder';

/** Asked before anything is ordered, each said by one press; whatever else is said goes another way. */
export function Asked({ page, onRedEye, onSight }: { readonly page: ReorderPageState; readonly onRedEye: () => void; readonly onSight: () => void }) {
  const t = useTranslations('reorder');
  const words = useProblemWords();
  const { asked, setAsked } = page;
  const at = (path: string): string | null => {
    const found = problemAt(page.problem, path);
    return found ? words(found.code, found.data) : null;
  };
  return (
    <section className="py-3 border-b border-rule">
      <h2 className="pb-1">{t('askFirst')}</h2>
      <Question
        label={t('danger')}
        said={asked.noDanger ? t('dangerSaid') : null}
        problem={at('noDanger')}
        yes={
          <Button look={asked.noDanger ? 'plain' : 'act'} keys={['N']} onClick={() => setAsked({ ...asked, noDanger: true })}>
            {t('noDanger')}
          </Button>
        }
        no={
          <Button look="quiet" onClick={onRedEye}>
            {t('someDanger')}
          </Button>
        }
      />
      <Question
        label={t('sight')}
        said={asked.sightSame ? t('sightSaid') : null}
        problem={at('sightSame')}
        yes={
          <Button look={asked.noDanger && !asked.sightSame ? 'act' : 'plain'} keys={['S']} onClick={() => setAsked({ ...asked, sightSame: true })}>
            {t('sightSame')}
          </Button>
        }
        no={
          <Button look="quiet" onClick={onSight}>
            {t('sightChanged')}
          </Button>
        }
      />
      {page.endsSoon && page.bar === null ? <Examination page={page} /> : null}
      {problemAt(page.problem, 'pastExpiryNote') || page.pastExpiryNote !== '' ? (
        <Field
          label={t('pastExpiryWhy')}
          value={page.pastExpiryNote}
          onValue={page.setPastExpiryNote}
          problem={at('pastExpiryNote')}
          className="max-w-[520px]"
        />
      ) : null}
    </section>
  );
}

function Question({
  label,
  said,
  problem,
  yes,
  no,
}: {
  readonly label: string;
  readonly said: string | null;
  readonly problem: string | null;
  readonly yes: React.ReactNode;
  readonly no: React.ReactNode;
}) {
  return (
    <div className="flex items-center gap-3 py-1 flex-wrap">
      <span className="flex-1 min-w-[180px]">{label}</span>
      {said === null ? (
        <>
          {yes}
          {no}
        </>
      ) : (
        <Stated state="ok">{said}</Stated>
      )}
      {problem && said === null ? (
        <span className="w-full" role="alert">
          <Stated state="stop">{problem}</Stated>
        </span>
      ) : null}
    </div>
  );
}

/** A prescription that ends within two months: the examination is booked in the same call. */
function Examination({ page }: { readonly page: ReorderPageState }) {
  const t = useTranslations('reorder');
  const { examination, file } = page;
  return (
    <p className="flex items-center gap-3 py-1">
      {examination ? (
        <Stated state="ok">{t('examinationBooked')}</Stated>
      ) : (
        <>
          <Stated state="watch">{t('examinationNeeded')}</Stated>
          <Link className="btn" href={`/diary?for=${file.wearer.id}&visit=fullAnnual`} prefetch={false}>
            {t('book')} <KeyCap>{'B'}</KeyCap>
          </Link>
        </>
      )}
    </p>
  );
}
