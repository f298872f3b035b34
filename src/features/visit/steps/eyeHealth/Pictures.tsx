'use client';
import Image from 'next/image';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { formatTime } from '@/i18n/format';
import photoProblems from '@/i18n/messages/en/photoProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Segment } from '@/ui/Segment';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge, Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useEyeWords } from '../../../common/eyeWords';
import { PICTURE_KINDS, PICTURE_MAX_BYTES, sendPicture } from '../../../common/sendPicture';
import { useRefusalWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';

/** Pictures of the eyes: made anew on the server, shown large, listed by eye. */
function PicturesPart() {
  const t = useTranslations('eyeHealth');
  const eyes = useEyeWords();
  const refusal = useRefusalWords();
  const { record, refresh } = useVisit();
  const [eye, setEye] = useState<Eye>('right');
  const [file, setFile] = useState<File | null>(null);
  const [title, setTitle] = useState('');
  const [problem, setProblem] = useState<string | null>(null);
  const [said, setSaid] = useState<string | null>(null);
  const [sending, setSending] = useState(false);
  const [large, setLarge] = useState<string | null>(null);
  const shown = record.health.pictures.find((p) => p.id === large);
  const tooLarge = (bytes: number): string =>
    refusal({ kind: 'invalid', fields: [{ path: ['picture'], code: 'pictureTooLarge', data: { mb: Math.round(bytes / 1048576), max: 15 } }] });

  const choose = (next: File | null): void => {
    setSaid(null);
    setProblem(next && next.size > PICTURE_MAX_BYTES ? tooLarge(next.size) : null);
    setFile(next);
  };
  const send = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!file || sending || file.size > PICTURE_MAX_BYTES) return;
    setSending(true);
    setProblem(null);
    try {
      const result = await sendPicture(file, { visit: record.visit.id, version: record.visit.version, eye, title });
      if (!result.ok) {
        if (result.error.kind === 'conflict') await refresh();
        setProblem(refusal(result.error));
        return;
      }
      setSaid(result.value.placeRemoved ? t('placeGone') : t('pictureDone'));
      setFile(null);
      setTitle('');
      await refresh();
    } catch {
      setProblem(t('away'));
    } finally {
      setSending(false);
    }
  };
  return (
    <section className="px-6 py-4" aria-label={t('pictures')}>
      <h2 className="mb-2">{t('pictures')}</h2>
      <div className="flex flex-wrap gap-3 mb-3">
        {record.health.pictures.map((p) => (
          <button key={p.id} type="button" className="picture" onClick={() => setLarge(p.id)} aria-label={t('open', { title: p.title || t('untitled') })}>
            {/* Served by this application to whoever may read the record; no optimiser may keep a copy. */}
            <Image unoptimized loading="eager" src={`/api/pictures/${p.id}`} alt="" width={144} height={108} />
            <span className="flex gap-2 items-center">
              <EyeBadge eye={p.eye} />
              <span className="note">{t('by', { name: p.recordedByName, time: formatTime(p.recordedAt, record.session.practice.timeZone) })}</span>
            </span>
          </button>
        ))}
      </div>
      {record.visit.closedAt === null ? (
        <form className="flex flex-wrap gap-3 items-end" onSubmit={(event) => void send(event)}>
          <Segment label={t('eye')} values={EYES} value={eye} word={(e) => eyes.short(e)} onChoose={setEye} />
          <label className="btn btn-plain file-choose">
            {file ? file.name : t('choose')}
            <input
              key={said ?? 'choose'}
              type="file"
              accept={PICTURE_KINDS}
              className="sr-only"
              aria-label={t('addPicture')}
              onChange={(event) => choose(event.target.files?.[0] ?? null)}
            />
          </label>
          <Field label={t('pictureTitle')} value={title} onValue={setTitle} className="w-[220px] -mb-5" maxLength={120} />
          <Button type="submit" disabled={!file || sending || problem !== null}>
            {t('send')}
          </Button>
          <div className="basis-full min-h-5" role="status">
            {problem ? <ProblemLine>{problem}</ProblemLine> : said ? <Stated state="ok">{said}</Stated> : <span className="label">{t('pictureHint')}</span>}
          </div>
        </form>
      ) : null}
      <Panel open={shown !== undefined} onClose={() => setLarge(null)} title={shown ? `${eyes.short(shown.eye)} · ${shown.title || t('untitled')}` : ''} wide>
        {shown ? (
          <Image
            unoptimized
            loading="eager"
            src={`/api/pictures/${shown.id}`}
            alt={shown.title || t('untitled')}
            width={shown.width}
            height={shown.height}
            className="picture-large"
          />
        ) : null}
      </Panel>
    </section>
  );
}

export const Pictures = withWords({ problems: photoProblems }, PicturesPart);
