'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { LIMITS, marksOf, seriesStats, type AskedOfPhoto, type Eye, type TurnOfPhoto } from '@/core';
import photoProblems from '@/i18n/messages/en/photoProblems.messages.json';
import photoWords from '@/i18n/messages/en/photo.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../../../../common/eyeWords';
import { useVisit } from '../../../shell/VisitProvider';
import { degrees, type Blink, type Lens } from '../model';
import { PhotoLoupe, PhotoProtractor, TOOLS, type Tool } from './PhotoProtractor';
import { PhotoShots } from './PhotoShots';
import { PhotoSides } from './PhotoSides';
import { askedKey, usePhotoReading, type PhotoFound, type Shot } from './usePhotoReading';
import { othersOf, placedOn, rollOf, turnOf, usePhotoSeries, type Placed, type PhotoSeries } from './usePhotoSeries';

interface Of {
  readonly open: boolean;
  readonly eye: Eye;
  readonly lens: Lens;
  readonly onTaken: (blinks: readonly Blink[]) => void;
  readonly onClose: () => void;
}

/** The turn of a lens off pictures: a protractor by hand, and a reading by the program that is always confirmed. */
function PhotoPart({ open, eye, lens, onTaken, onClose }: Of) {
  const t = useTranslations('photo');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const shots = record.health.pictures.filter((p) => p.eye === eye && p.visitId === record.visit.id);
  const series = usePhotoSeries(eye, shots);
  const { readings } = series;
  const stats =
    readings.length === 0
      ? null
      : seriesStats(
          readings.map((r) => r.rotationLeft),
          record.session.settings.readerNoiseDegrees,
        );
  return (
    <Panel open={open} wide onClose={onClose} title={t('title', { eye: eyeWords.name(eye), lens: lens.familyName })}>
      <PhotoShots eye={eye} lens={lens} shots={shots} series={series} />
      {shots.length > 0 ? <PhotoSides series={series} /> : null}
      {series.shot ? <Protractor key={series.shot.id} eye={eye} lens={lens} shot={series.shot} series={series} /> : null}
      <div className="flex flex-wrap justify-end gap-3 items-center mt-4">
        <span className="value mr-auto" data-testid="photo-readings">
          {stats === null
            ? t('noReading')
            : t('readings', {
                count: readings.length,
                list: readings.map((r) => eyeWords.turn(r.rotationLeft)).join(', '),
                mean: eyeWords.turn(Math.round(stats.mean)),
                sd: stats.sd === null ? '' : degrees(stats.sd),
                has: stats.sd === null ? 'no' : 'yes',
              })}
        </span>
        <Button onClick={onClose}>{t('close')}</Button>
        <Button
          look={readings.length === shots.length ? 'act' : 'plain'}
          disabled={readings.length === 0}
          onClick={() => {
            onTaken(readings);
            onClose();
          }}
        >
          {t('use', { count: readings.length })}
        </Button>
      </div>
    </Panel>
  );
}

/** What the program found, once it has. */
const foundOf = (found: PhotoFound | null): TurnOfPhoto | null => (found === null || typeof found === 'string' ? null : found);

/** One picture: what the program reads of it, what is placed by hand, and the reading that is taken. */
function Protractor({ eye, lens, shot, series }: Omit<Of, 'open' | 'onTaken' | 'onClose'> & { readonly shot: Shot; readonly series: PhotoSeries }) {
  const t = useTranslations('photo');
  const eyeWords = useEyeWords();
  const [tool, setTool] = useState<Tool>('mark');
  const { bar, lies, placed: byHand } = series;
  const upsideDown = lies === 'upsideDown';
  const asked: AskedOfPhoto = { eye, layout: lens.markLayout, spacing: lens.markSpacing ?? 0, roll: byHand ? rollOf(byHand) : 0 };
  const reading = usePhotoReading(bar === null ? askedKey(shot, upsideDown, asked) : null);
  const found = foundOf(reading);
  const placed = placedOn(shot, lens, byHand, found);
  const turn = turnOf(placed, lens);
  const hours = marksOf(lens.markLayout);
  const onPlace = (next: Placed): void => series.put(shot.id, next);
  const said = turn === null ? t('notPlaced') : eyeWords.turn(Math.round(turn));
  return (
    <div className="flex flex-wrap gap-4 mt-3 items-start">
      <PhotoProtractor
        shot={shot}
        placed={placed}
        tool={tool}
        upsideDown={upsideDown}
        found={found}
        label={t('picture')}
        valueText={said}
        others={othersOf(placed, lens)}
        onPlace={onPlace}
      />
      <div className="flex flex-col gap-3 flex-1 min-w-60">
        <Found reading={reading} byHand={byHand?.at !== null && byHand !== null} />
        <div className="flex flex-wrap gap-3 items-center">
          <span className="turn-figure" data-testid="photo-turn">
            {placed.at !== null && turn === null ? t('whichFirst') : said}
          </span>
          <Button
            look={series.taken[shot.id] ? 'plain' : 'act'}
            disabled={turn === null || bar !== null || Math.abs(turn) > LIMITS.rotationLeft.max}
            onClick={() => (turn === null ? undefined : series.take(shot, placed, turn, found?.ok ? found.rotationLeft : null))}
          >
            {t('take')}
          </Button>
        </div>
        {hours.length > 1 ? (
          <div>
            <span className="field-label">{t('which')}</span>
            <Segment label={t('which')} values={hours} value={placed.hour} word={(h) => t(`hour.${h}`)} onChoose={(hour) => onPlace({ ...placed, hour })} />
            <p className="note mt-1">{t('whichWhy')}</p>
          </div>
        ) : null}
        <div>
          <span className="field-label">{t('tool')}</span>
          <Segment label={t('tool')} kind="wrapping" values={TOOLS} value={tool} word={(x) => t(`toolIs.${x}`)} onChoose={setTool} />
        </div>
        <div className="flex gap-3 items-start">
          <PhotoLoupe shot={shot} placed={placed} tool={tool} upsideDown={upsideDown} label={t('loupe')} />
          <p className="note" id="photo-keys">
            {t('keys')} {t('level', { roll: degrees(rollOf(placed)), set: placed.canthi ? 'yes' : 'no' })}
          </p>
        </div>
      </div>
    </div>
  );
}

/** What the program says of a picture. */
function Found({ reading, byHand }: { readonly reading: PhotoFound | null; readonly byHand: boolean }) {
  const t = useTranslations('photo');
  const eyeWords = useEyeWords();
  const found = foundOf(reading);
  return (
    <div data-testid="photo-found" role="status">
      {reading === 'reading' ? <span className="label">{t('looking')}</span> : null}
      {reading === 'away' ? <Stated state="watch">{t('cannotLook')}</Stated> : null}
      {found && !found.ok ? <Stated state="watch">{t(`why.${found.why}`)}</Stated> : null}
      {found?.ok ? <span className="value">{t(byHand ? 'foundBeside' : 'found', { turn: eyeWords.turn(Math.round(found.rotationLeft)) })}</span> : null}
    </div>
  );
}

export const PhotoPanel = withWords({ photo: photoWords, problems: photoProblems }, PhotoPart);
