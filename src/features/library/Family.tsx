'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useKey } from '../common/keys';
import dynamic from 'next/dynamic';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, may, parseRefraction, toCornealPlane, type Eye, type Refraction } from '@/core';
import { formatDay, formatMoney, formatMoment } from '@/i18n/format';
import type { FamilyPage } from '@/services/family/queries';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { EyeBadge, KeyCap } from '@/ui/marks';
import { useServer } from '../common/ServerProvider';
import { useEyeWords } from '../common/eyeWords';
import { AppPage } from '../common/AppPage';
import { useProblemWords } from '../common/words';
import { Blocks } from './Blocks';
import { Ending } from './Ending';
import { extentOf } from './model';
import lensWords from '@/i18n/messages/en/lens.messages.json';
import libraryWords from '@/i18n/messages/en/library.messages.json';
import rangeWords from '@/i18n/messages/en/range.messages.json';
import { withWords } from '@/i18n/withWords';
import libraryProblems from '@/i18n/messages/en/libraryProblems.messages.json';

const FamilyEditor = dynamic(() => import('./FamilyEditor').then((m) => m.FamilyEditor));
const RangeOfFamily = dynamic(() => import('../common/range/RangeOfFamily').then((m) => m.RangeOfFamily));

/** One lens family: what it makes as a picture, with a power put on it; its versions, its end, and who is on it. */
function FamilyPage({ page }: { readonly page: FamilyPage }) {
  const t = useTranslations('library');
  const lens = useTranslations('lens');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { session } = useServer();
  const [typed, setTyped] = useState<Readonly<Record<Eye, string>>>({ right: '', left: '' });
  const [editing, setEditing] = useState(false);
  const newest = page.versions[0];
  const [looked, setLooked] = useState<string | null>(null);
  const shown = page.versions.find((v) => v.id === looked) ?? page.inForce ?? newest;
  const mayChange = may(session.viewer.roles, 'settings');
  useKey('r', (event) => (event.preventDefault(), document.getElementById('place-right')?.focus()));
  useKey('l', (event) => (event.preventDefault(), document.getElementById('place-left')?.focus()));
  if (!newest || !shown) return null;
  const announced = page.versions.filter((v) => v.startsOn !== null && v.startsOn > session.today);
  const needOf = (e: Eye): Refraction | null => {
    const read = parseRefraction(typed[e]);
    return read.ok ? toCornealPlane(read.value, session.settings.vertexMm) : null;
  };
  const problemOf = (e: Eye): string | null => {
    const read = parseRefraction(typed[e]);
    return read.ok || typed[e].trim() === '' ? null : words(read.error.code, read.error.data);
  };
  const needText = (e: Eye): string | null => {
    const need = needOf(e);
    return need ? t('atCornea', { power: formatRefraction(need) }) : null;
  };
  const extent = extentOf(shown.blocks);
  const unknown = lens('unknown');
  const cell = (label: string, lines: readonly string[]) => (
    <div className="strip-cell max-wide:hidden">
      <div className="label">{label}</div>
      {lines.map((line) => (
        <div key={line}>{line}</div>
      ))}
    </div>
  );
  return (
    <AppPage
      place="library"
      title={shown.name}
      strip={
        <>
          {cell(t('worn'), [lens(`modality.${shown.modality}`), lens(shown.overnightApproved ? 'approved' : 'dayOnly')])}
          {cell(t('material'), [shown.material, t('dkt', { centre: shown.dktCentre ?? unknown, thickest: shown.dktThickest ?? unknown })])}
          {cell(t('curves'), extent ? extent.curves.slice(0, 2) : [])}
          {cell(t('mark'), [lens(`marks.${shown.markLayout}`), t('settles', { count: shown.settleMinutes })])}
        </>
      }
      margin={
        editing ? undefined : (
          <>
            <h2 className="mb-2">{t('versions')}</h2>
            {page.versions.map((v) => (
              <div key={v.id} className="border-t border-rule py-2">
                <button
                  type="button"
                  className="btn btn-quiet"
                  aria-pressed={v.id === shown.id}
                  aria-label={t('showVersion', { version: v.version })}
                  onClick={() => setLooked(v.id)}
                >
                  {v.version}
                </button>{' '}
                {v.id === page.inForce?.id
                  ? t('inForce')
                  : v.startsOn !== null && v.startsOn > session.today
                    ? t('announced', { day: formatDay(v.startsOn) })
                    : t('earlier')}
                <span className="block note">
                  {v.createdByName
                    ? t('versionBy', { name: v.createdByName, moment: formatMoment(v.createdAt, session.practice.timeZone) })
                    : formatMoment(v.createdAt, session.practice.timeZone)}
                </span>
              </div>
            ))}
            <Ending page={page} mayChange={mayChange} />
            <section className="mt-5" data-testid="family-use">
              <h2 className="mb-2">{t('useTitle')}</h2>
              {page.use.length === 0 ? <p>{t('useNone')}</p> : null}
              {page.use.map((u) => (
                <div key={`${u.prescriptionId}${u.eye}`} className="border-t border-rule py-1">
                  <Link className="underline" href={`/wearers/${u.wearerId}`} prefetch={false}>
                    {u.name}
                  </Link>{' '}
                  <span className="note">{t('bornOn', { day: formatDay(u.birthDate) })}</span>
                  <span className="flex gap-2 items-center note">
                    <EyeBadge eye={u.eye} /> {formatRefraction({ sphere: u.sphereD, cylinder: u.cylinderD, axis: u.axisDeg })} ·{' '}
                    {t('until', { day: formatDay(u.expiresOn) })}
                  </span>
                </div>
              ))}
            </section>
          </>
        )
      }
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'R'}</KeyCap> <KeyCap>{'L'}</KeyCap> {t('keyPlace')}
            </span>
          </div>
          <Link className="btn btn-plain" href="/library" prefetch={false}>
            {t('toLibrary')}
          </Link>
          {mayChange ? (
            <Button look={editing ? 'plain' : 'act'} aria-pressed={editing} onClick={() => setEditing(!editing)}>
              {editing ? t('close') : t('changeFamily')}
            </Button>
          ) : null}
        </>
      }
    >
      {editing ? (
        <FamilyEditor
          code={newest.code}
          baseVersion={newest.version}
          lines={page.lines}
          onSaved={() => {
            setEditing(false);
            router.refresh();
          }}
        />
      ) : (
        <div className="px-6 py-4">
          <h2 className="mb-2">{shown.id === page.inForce?.id ? t('madeTitle') : t('madeVersion', { version: shown.version })}</h2>
          <RangeOfFamily
            family={shown}
            {...(announced[0] && announced[0].id !== shown.id ? { announced: announced[0].blocks } : {})}
            drawer={page.stock
              .filter((s) => s.count > 0 && s.expiresOn >= session.today)
              .map((s) => ({ sphere: s.sphereD, cylinder: s.cylinderD, axis: s.axisDeg }))}
            needs={{ right: needOf('right'), left: needOf('left') }}
            adds={{ right: null, left: null }}
          />
          <div className="flex flex-wrap gap-4 mt-4">
            {EYES.map((e) => (
              <Field
                key={e}
                id={`place-${e}`}
                label={t('placeEye', { eye: eyeWords.name(e), vertex: session.settings.vertexMm })}
                value={typed[e]}
                onValue={(value) => setTyped({ ...typed, [e]: value })}
                problem={problemOf(e)}
                hint={needText(e)}
                mono
                autoComplete="off"
                className="max-w-[260px]"
              />
            ))}
          </div>
          <h2 className="settings-group mt-4">{t('blocks')}</h2>
          <Blocks blocks={shown.blocks} />
          <h2 className="settings-group mt-4">{t('facts')}</h2>
          <dl className="facts">
            {(
              [
                ['maker', shown.maker],
                ['water_percent', shown.waterPercent ?? unknown],
                ['dk', shown.dk ?? unknown],
                ['modulus_mpa', shown.modulusMpa ?? unknown],
                ['min_age', shown.minAge ?? lens('labelNone')],
                ['pack_size', lens('pack', { size: shown.packSize, price: formatMoney(shown.packPriceMinor, session.practice.currency) })],
                ['rebate', formatMoney(shown.rebateMinor, session.practice.currency)],
                ['lead_days', lens('daysCount', { count: shown.leadDays })],
                ['stabilisation', shown.stabilisation ? t(`options.${shown.stabilisation}`) : t('notSaid')],
                ['rotation_mean', shown.rotationMean === null ? t('ofTheKind') : t('turn', { mean: shown.rotationMean, sd: shown.rotationSd ?? 0 })],
              ] as const
            ).map(([column, value]) => (
              <div key={column}>
                <dt className="label">{t(`columns.${column}`)}</dt>
                <dd>{value}</dd>
              </div>
            ))}
          </dl>
        </div>
      )}
    </AppPage>
  );
}

export const Family = withWords({ problems: libraryProblems, lens: lensWords, library: libraryWords, range: rangeWords }, FamilyPage);
