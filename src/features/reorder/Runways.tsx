'use client';
import { useTranslations } from 'use-intl';
import { EYES, type Eye, type IsoDate, type SupplyPlan } from '@/core';
import { formatDay, formatShortDay } from '@/i18n/format';
import { EyeBadge } from '@/ui/marks';
import { useEyeWords } from '../common/eyeWords';
import { axisOf, HEIGHT, partsOf, type Axis, type DrawnPart } from './axis';
import type { ReorderPageState } from './useReorder';

const WIDTH = 460;
const SPINE = 132;
const BOX = 54;
/** Left edge of an eye's boxes. */
const EDGE: Readonly<Record<Eye, number>> = { right: WIDTH / 2 - SPINE / 2 - 16 - BOX, left: WIDTH / 2 + SPINE / 2 + 16 };

const LOOK: Readonly<Record<DrawnPart['look'], React.SVGProps<SVGRectElement>>> = {
  worn: { fill: 'var(--field)', stroke: 'var(--ink)' },
  left: { fill: 'var(--ink)', stroke: 'var(--ink)' },
  onTheWay: { fill: 'url(#reorder-hatch)', stroke: 'var(--ink)' },
  proposed: { fill: 'url(#reorder-hatch)', stroke: 'var(--ink)', strokeDasharray: '5 3' },
};

/** Both eyes' lenses down the days: worn, in hand, on the way and thought of, beside the end of the prescription. */
export function Runways({ page }: { readonly page: ReorderPageState }) {
  const t = useTranslations('reorder');
  const eyeWords = useEyeWords();
  const { plans, today, prescription } = page;
  if (!prescription) return null;
  const axis = axisOf(plans, today, prescription.expiresOn);
  const said = EYES.flatMap((eye) => {
    const plan = plans[eye];
    return plan ? [t('axisEye', { eye: eyeWords.name(eye), inHand: dayOr(plan.inHandUntil, t('nothing')), all: dayOr(plan.runOut, t('nothing')) })] : [];
  });
  return (
    <figure className="max-w-[520px]">
      <figcaption className="grid grid-cols-[1fr_132px_1fr] items-center border-b border-rule-2 py-2">
        <span className="flex justify-end items-center gap-2 pr-3">
          <LensOf page={page} eye="right" /> <EyeBadge eye="right" />
        </span>
        <span className="note text-center">{t('timeRuns')}</span>
        <span className="flex items-center gap-2 pl-3">
          <EyeBadge eye="left" /> <LensOf page={page} eye="left" />
        </span>
      </figcaption>
      <svg
        viewBox={`0 0 ${WIDTH} ${HEIGHT}`}
        className="w-full"
        role="img"
        aria-label={[...said, t('axisExpires', { day: formatDay(prescription.expiresOn) })].join(' ')}
      >
        <pattern id="reorder-hatch" width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 0v7" stroke="var(--ink)" strokeWidth="1.3" />
        </pattern>
        <rect x={WIDTH / 2 - SPINE / 2} y="0" width={SPINE} height={HEIGHT} fill="var(--spine)" />
        <Months axis={axis} today={today} expiresOn={prescription.expiresOn} />
        {EYES.map((eye) => {
          const plan = plans[eye];
          return plan ? <EyeBoxes key={eye} page={page} eye={eye} plan={plan} axis={axis} today={today} /> : null;
        })}
        <Today axis={axis} today={today} />
        {[0, 4].map((d) => (
          <line
            key={d}
            x1="8"
            x2={WIDTH - 8}
            y1={axis.y(prescription.expiresOn) + d}
            y2={axis.y(prescription.expiresOn) + d}
            stroke="var(--ink)"
            strokeWidth="1.4"
          />
        ))}
        <text x={WIDTH / 2} y={axis.y(prescription.expiresOn) + 18} textAnchor="middle" className="axis-word" fontWeight="620">
          {t('ends', { day: formatShortDay(prescription.expiresOn) })}
        </text>
      </svg>
    </figure>
  );
}

/** The power of an eye's lens, and what it is to see with it. */
function LensOf({ page, eye }: { readonly page: ReorderPageState; readonly eye: Eye }) {
  const aim = useEyeWords().aim(page.prescription?.eyes.find((e) => e.eye === eye)?.aim);
  return (
    <span>
      <span className="value">{page.powerOf(eye)}</span>
      {aim ? <span className="label block">{aim}</span> : null}
    </span>
  );
}

/** A break across an eye's boxes. */
const zigzag = (x: number, y: number): string => `M${x - 3} ${y}${Array.from({ length: 6 }, (_, i) => `l10 ${i % 2 === 0 ? 6 : -6}`).join('')}`;

const dayOr = (day: IsoDate | null, none: string): string => (day === null ? none : formatDay(day));

function Months({ axis, today, expiresOn }: { readonly axis: Axis; readonly today: IsoDate; readonly expiresOn: IsoDate }) {
  return axis.months.map((month, i) => {
    const y = axis.y(month);
    // A month's name gives way to the flag of today, and to the end of the prescription.
    const hidden = Math.abs(y + 12 - axis.y(today)) < 16 || Math.abs(y + 12 - axis.y(expiresOn) - 14) < 20;
    return (
      <g key={month}>
        <line x1="40" x2={WIDTH - 40} y1={y} y2={y} stroke="var(--rule)" />
        {hidden ? null : (
          <text x={WIDTH / 2} y={y + 16} textAnchor="middle" className="axis-word">
            {formatDay(month)
              .split(' ')
              .slice(1, i === 0 || month.slice(5, 7) === '01' ? 3 : 2)
              .join(' ')}
          </text>
        )}
      </g>
    );
  });
}

function Today({ axis, today }: { readonly axis: Axis; readonly today: IsoDate }) {
  const t = useTranslations('reorder');
  const y = axis.y(today);
  return (
    <g>
      <line x1={EDGE.right} x2={EDGE.left + BOX} y1={y} y2={y} stroke="var(--ink)" strokeWidth="1.6" />
      <rect x={WIDTH / 2 - SPINE / 2} y={y - 10} width={SPINE} height="20" fill="var(--ink)" />
      <text x={WIDTH / 2} y={y + 5} textAnchor="middle" className="axis-flag">
        {t('today', { day: formatShortDay(today) })}
      </text>
    </g>
  );
}

/** One eye: its boxes, the last day of what is in hand, and of all of it. */
function EyeBoxes({
  page,
  eye,
  plan,
  axis,
  today,
}: {
  readonly page: ReorderPageState;
  readonly eye: Eye;
  readonly plan: SupplyPlan;
  readonly axis: Axis;
  readonly today: IsoDate;
}) {
  const t = useTranslations('reorder');
  const anchor = eye === 'right' ? 'end' : 'start';
  const x = eye === 'right' ? EDGE.right - 10 : EDGE.left + BOX + 10;
  const marks = [
    ...(plan.inHandUntil !== null && plan.inHandUntil >= axis.from ? [{ day: plan.inHandUntil, word: t('inHandTo') }] : []),
    ...(plan.runOut !== null && plan.runOut !== plan.inHandUntil ? [{ day: plan.runOut, word: t('wouldLastTo') }] : []),
  ];
  // Words of a day just after the prescription's end stand below its double line.
  const ends = page.prescription ? axis.y(page.prescription.expiresOn) : 0;
  const baseOf = (day: IsoDate): number => (axis.y(day) - 32 < ends + 4 && axis.y(day) > ends - 4 ? ends + 36 : axis.y(day) - 5);
  return (
    <g>
      {plan.runway.boxes.flatMap((box, i) =>
        partsOf(box, axis, today).map((part, j) => <rect key={`${i} ${j}`} x={EDGE[eye]} width={BOX} y={part.top} height={part.height} {...LOOK[part.look]} />),
      )}
      {page.file.losses.map((loss) =>
        loss.eye === eye && loss.lostOn >= axis.from ? (
          <g key={loss.id}>
            <path d={zigzag(EDGE[eye], axis.y(loss.lostOn))} fill="none" stroke="var(--field)" strokeWidth="5" />
            <path d={zigzag(EDGE[eye], axis.y(loss.lostOn))} fill="none" stroke="var(--ink)" strokeWidth="1.8" />
            <text x={x} y={axis.y(loss.lostOn) + 4} textAnchor={anchor} className="axis-note">
              {t('loss.drawn', { why: t(`loss.reason.${loss.why}`), day: formatShortDay(loss.lostOn) })}
            </text>
          </g>
        ) : null,
      )}
      {marks.map(({ day, word }) => (
        <g key={word}>
          <text x={x} y={baseOf(day) - 15} textAnchor={anchor} className="axis-note">
            {word}
          </text>
          <text x={x} y={baseOf(day)} textAnchor={anchor} className="axis-word" fontWeight="620">
            {formatShortDay(day)}
          </text>
        </g>
      ))}
    </g>
  );
}
