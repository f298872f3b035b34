'use client';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, LENS_FIELDS, type AskedLens, type LensField, type PrescribedLens } from '@/core';
import type { RequestShown } from '@/services/request/queries';
import { EyeBadge, StateMark } from '@/ui/marks';

const asked = (lens: AskedLens, field: LensField): string =>
  field === 'power'
    ? formatRefraction(lens.power)
    : field === 'lensName'
      ? lens.lensName
      : field === 'add'
        ? (lens.add ?? '')
        : (lens[field]?.toFixed(1) ?? '');
const prescribed = (lens: PrescribedLens, field: LensField): string =>
  field === 'power'
    ? formatRefraction(lens.power)
    : field === 'lensName'
      ? `${lens.maker} ${lens.familyName}`
      : field === 'add'
        ? (lens.add ?? '')
        : (lens[field]?.toFixed(1) ?? '');

/** Field by field: what is asked, and what is prescribed where it differs. */
export function ComparedTable({ request }: { readonly request: RequestShown }) {
  const t = useTranslations('requests');
  const { compared, eyes } = request;
  const rows = EYES.flatMap((eye) => {
    const lens = eyes[eye];
    return lens ? [{ eye, lens, held: compared.prescription?.eyes[eye] ?? null }] : [];
  });
  if (rows.length === 0) return null;
  const differs = (eye: string, field: string): boolean => compared.differences.some((d) => d.eye === eye && d.field === field);
  return (
    <table className="ledger w-full" data-testid="compared">
      <thead>
        <tr>
          <th scope="col" />
          {LENS_FIELDS.map((field) => (
            <th key={field} scope="col">
              {t(`field.${field}`)}
            </th>
          ))}
          <th scope="col" />
        </tr>
      </thead>
      <tbody>
        {rows.map(({ eye, lens, held }) => (
          <tr key={eye}>
            <td>
              <EyeBadge eye={eye} />
            </td>
            {LENS_FIELDS.map((field) => (
              <td key={field}>
                <span className={field === 'power' ? 'power' : 'value'}>{asked(lens, field)}</span>
                {held && differs(eye, field) ? (
                  <div className="flex gap-2 items-baseline text-stop" data-testid={`differs-${eye}-${field}`}>
                    <StateMark state="stop" size={12} />
                    <span className={field === 'power' ? 'power' : 'value'}>{prescribed(held, field) || t('nothing')}</span>
                    <span className="note">{t('prescribed', { number: compared.prescription?.number ?? 0 })}</span>
                  </div>
                ) : null}
              </td>
            ))}
            <td>
              <span className="label">{t('boxes', { count: lens.boxes })}</span>
              {differs(eye, 'eye') ? <div className="stated stated-stop">{t('notPrescribed')}</div> : null}
            </td>
          </tr>
        ))}
      </tbody>
    </table>
  );
}
