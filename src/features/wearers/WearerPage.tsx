'use client';
import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useKey } from '../common/keys';
import { useTranslations } from 'use-intl';
import { formatRefraction, inForce, may, VISIT_KINDS, type Eye, type WearerFile, provenance, type LensFactKind } from '@/core';
import { formatDay, formatMoment } from '@/i18n/format';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { ProblemLine } from '@/ui/Field';
import { Frame } from '@/ui/Frame';
import { LensToken } from '@/ui/LensToken';
import { KeyCap, Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useServer } from '../common/ServerProvider';
import { useEyeWords } from '../common/eyeWords';
import { Rail } from '../common/Rail';
import { WearerStrip } from '../common/WearerStrip';
import { useRefusalWords } from '../common/words';
import { IdentityChanges } from './IdentityChanges';
import { Visits } from './Visits';
import { WearerForm, type WearerInput } from './WearerForm';
import prescriptionWords from '@/i18n/messages/en/prescription.messages.json';
import todayWords from '@/i18n/messages/en/today.messages.json';
import visitWords from '@/i18n/messages/en/visit.messages.json';
import wearerWords from '@/i18n/messages/en/wearer.messages.json';
import wearerFormWords from '@/i18n/messages/en/wearerForm.messages.json';
import { withWords } from '@/i18n/withWords';

const KINDS: readonly LensFactKind[] = ['handedOver', 'ordered', 'prescribed', 'tried'];

/** A wearer: what is worn now and how we know, the visits, the prescriptions. */
function WearerRecord({ file }: { readonly file: WearerFile }) {
  const t = useTranslations('wearer');
  const final = useTranslations('prescription');
  const frame = useTranslations('frame');
  const today = useTranslations('today');
  const facts = useTranslations('visit.facts');
  const eyeWords = useEyeWords();
  const refusal = useRefusalWords();
  const router = useRouter();
  const { command, session } = useServer();
  const [panel, setPanel] = useState<'visit' | 'edit' | null>(null);
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const zone = session.practice.timeZone;
  const { wearer } = file;
  const openNow = file.visits.find((v) => v.closedAt === null) ?? null;
  const mayOpen = may(session.viewer.roles, 'clinicalWrite');
  const chain = { right: provenance(file, 'right'), left: provenance(file, 'left') };
  const power = (lensId: string): string => {
    const l = file.lenses[lensId];
    return l ? formatRefraction({ sphere: l.sphereD, cylinder: l.cylinderD, axis: l.axisDeg }) : '';
  };
  const begin = async (kind: (typeof VISIT_KINDS)[number]): Promise<void> => {
    setBusy(true);
    const done = await command('openVisit', { wearerId: wearer.id, kind });
    setBusy(false);
    if (done?.ok) router.push(`/visits/${done.value.visitId}/history`);
    else if (done) setProblem(done.error);
  };
  const edit = async (input: WearerInput): Promise<void> => {
    setBusy(true);
    const done = await command('updateWearer', { ...input, wearerId: wearer.id, version: wearer.version });
    setBusy(false);
    if (done?.ok) {
      setPanel(null);
      setProblem(null);
      router.refresh();
    } else if (done) setProblem(done.error);
  };
  const close = (): void => {
    setPanel(null);
    setProblem(null);
  };
  useKey(
    'n',
    (event) => {
      if (mayOpen) {
        event.preventDefault();
        setPanel('visit');
      }
    },
    [mayOpen],
  );

  const cell = (e: Eye, kind: LensFactKind) => {
    const { nodes, worn } = chain[e];
    const node = nodes[kind];
    if (!node) return <span className="label">{t('notYet')}</span>;
    const differs = worn !== null && node.lensId !== worn.lensId;
    const text = (
      <span className={`flex flex-col ${e === 'right' ? 'items-end' : 'items-start'}`}>
        <span className="value">{power(node.lensId)}</span>
        <span className="note">{t('nodeLine', { family: file.lenses[node.lensId]?.familyName ?? '', time: formatMoment(node.at, zone) })}</span>
        {differs ? <Stated state="watch">{kind === 'tried' ? t('neverCopied') : t('differs')}</Stated> : null}
      </span>
    );
    const mark = (
      <svg width="12" height="12" aria-hidden="true">
        <rect
          x="1.5"
          y="1.5"
          width="9"
          height="9"
          fill={kind === 'tried' && differs ? 'none' : 'var(--ink)'}
          stroke="var(--ink)"
          strokeDasharray={kind === 'tried' && differs ? '2 2' : undefined}
        />
      </svg>
    );
    return (
      <span className={`flex gap-3 items-center ${e === 'left' ? 'flex-row-reverse' : ''}`}>
        {text}
        {mark}
      </span>
    );
  };
  const wornCell = (e: Eye) => {
    const { worn } = chain[e];
    if (!worn) return <span className="label">{t('wearsNothing')}</span>;
    const l = file.lenses[worn.lensId];
    return (
      <span className={`flex gap-3 items-center ${e === 'left' ? 'flex-row-reverse' : ''}`}>
        <span className={`flex flex-col ${e === 'right' ? 'items-end' : 'items-start'}`}>
          <span className="power-read" data-testid={`worn-${e}`}>
            {power(worn.lensId)}
          </span>
          <span className="note">
            {t('wornLine', { family: l?.familyName ?? '', curve: l?.baseCurveMm?.toFixed(1) ?? '', diameter: l?.diameterMm?.toFixed(1) ?? '' })}
          </span>
        </span>
        <LensToken
          size={48}
          ring="unjudged"
          geometry={l?.geometry ?? 'sphere'}
          rotationLeft={0}
          axisGiven={l && l.cylinderD !== 0 ? l.axisDeg : null}
          axisAsked={null}
          label={t('tokenLabel', { eye: eyeWords.name(e), power: power(worn.lensId) })}
        />
      </span>
    );
  };
  const prescription = file.prescriptions[0] ?? null;
  return (
    <Frame
      rail={<Rail place="wearers" />}
      strip={
        <WearerStrip
          wearer={wearer}
          lines={
            wearer.telephone ? (
              <div className="strip-cell drop-narrow">
                <div className="label">{t('telephone')}</div>
                <div>{wearer.telephone}</div>
              </div>
            ) : null
          }
        />
      }
      marginWords={{ open: frame('marginOpen'), close: frame('marginClose'), label: frame('margin') }}
      margin={
        <>
          <h2 className="mb-2">{t('why')}</h2>
          <p className="mb-5">{(chain.right.worn ?? chain.left.worn) ? t('whyWorn') : t('whyNothing')}</p>
          <h2 className="mb-2">{t('prescription')}</h2>
          {prescription ? (
            <>
              <p>{t('prescriptionLine', { number: prescription.number, name: prescription.prescriber.name })}</p>
              <p className="mb-2">{t('prescriptionDays', { issued: formatDay(prescription.issuedOn), expires: formatDay(prescription.expiresOn) })}</p>
              {prescription.expiresOn < session.today ? <Stated state="stop">{t('expired')}</Stated> : null}
              {inForce(file.prescriptions)
                .slice(1)
                .map((p) => (
                  <p key={p.id}>{t('prescriptionPurpose', { number: p.number, purpose: final(`purposes.${p.purpose}`), expires: formatDay(p.expiresOn) })}</p>
                ))}
              {file.prescriptionCount > 1 ? <p className="label">{t('before', { count: file.prescriptionCount - 1 })}</p> : null}
            </>
          ) : (
            <p className="label">{t('noPrescription')}</p>
          )}
          <IdentityChanges changes={file.identityChanges} zone={zone} />
        </>
      }
      bar={
        <>
          <div className="frame-bar-keys">
            <span>
              <KeyCap>{'N'}</KeyCap> {t('keyVisit')}
            </span>
          </div>
          {may(session.viewer.roles, 'wearers') ? <Button onClick={() => setPanel('edit')}>{t('edit')}</Button> : null}
          {openNow ? (
            <Button look="act" onClick={() => router.push(`/visits/${openNow.id}/history`)}>
              {t('goOn', { kind: today(`kind.${openNow.kind}`) })}
            </Button>
          ) : mayOpen ? (
            <Button look="act" keys={['N']} onClick={() => setPanel('visit')}>
              {t('newVisit')}
            </Button>
          ) : null}
        </>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('facing')} />
        <SpineRow chosen tone="field" label={t('wornNow')} note={t('wornNote')} right={wornCell('right')} left={wornCell('left')} />
        {KINDS.map((kind) => (
          <SpineRow key={kind} label={t(`kind.${kind}`)} note={t(`kindNote.${kind}`)} right={cell('right', kind)} left={cell('left', kind)} />
        ))}
      </Spine>
      <Visits file={file} zone={zone} />
      <Panel open={panel === 'visit'} onClose={close} title={t('visitTitle')}>
        <div className="flex flex-col gap-2">
          {VISIT_KINDS.map((kind) => (
            <Button key={kind} disabled={busy} onClick={() => void begin(kind)}>
              {today(`kind.${kind}`)}
            </Button>
          ))}
          {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        </div>
      </Panel>
      <Panel open={panel === 'edit'} onClose={close} title={t('editTitle')}>
        {problem?.kind === 'conflict' ? (
          <div className="mb-3" role="alert">
            <Stated state="watch">{t('conflict')}</Stated>
            <ul>
              {problem.differs.map((d) => (
                <li key={d.what} className="label">
                  {t('conflictField', { field: facts.has(d.what as 'name') ? facts(d.what as 'name') : d.what, text: d.text })}
                </li>
              ))}
            </ul>
            <Button
              look="quiet"
              onClick={() => {
                setProblem(null);
                router.refresh();
              }}
            >
              {t('conflictReload')}
            </Button>
          </div>
        ) : null}
        <WearerForm
          initial={{
            name: wearer.name,
            birthDate: formatDay(wearer.birthDate),
            telephone: wearer.telephone ?? '',
            occupation: wearer.occupation ?? '',
            guardian: wearer.guardian ?? '',
          }}
          problem={problem}
          busy={busy}
          doWords={t('editDo')}
          onSubmit={(input) => void edit(input)}
          onCancel={close}
        />
      </Panel>
    </Frame>
  );
}

export const WearerPage = withWords(
  { prescription: prescriptionWords, today: todayWords, visit: visitWords, wearer: wearerWords, wearerForm: wearerFormWords },
  WearerRecord,
);
