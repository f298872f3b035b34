import { daysBetween, type Eye, type EyeSupply } from '@/core';

/** One eye's lenses against the months to come: filled = in hand, hatched = ordered or thought of, double line = end of prescription. */
export function Runway({
  supply,
  eye,
  today,
  expiresOn,
  label,
}: {
  readonly supply: EyeSupply;
  readonly eye: Eye;
  readonly today: string;
  readonly expiresOn: string;
  readonly label: string;
}) {
  const width = 300;
  const span = Math.max(daysBetween(today, expiresOn), supply.plan.runOut ? daysBetween(today, supply.plan.runOut) : 0, 30) + 14;
  const x = (day: string): number => (Math.max(0, daysBetween(today, day)) / span) * width;
  const at = (px: number): number => (eye === 'right' ? width - px : px);
  const bar = (from: number, to: number): { x: number; width: number } => ({ x: Math.min(at(from), at(to)), width: Math.max(0, to - from) });
  const { plan } = supply;
  const inHandEnd = plan.inHandUntil ? x(plan.inHandUntil) : 0;
  return (
    <svg viewBox={`0 0 ${width} 34`} className="w-full max-w-[330px]" role="img" aria-label={label}>
      <pattern id={`supply-${eye}`} width="6" height="6" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <path d="M0 0v6" stroke="var(--ink)" strokeWidth="1.4" />
      </pattern>
      <line x1="0" x2={width} y1="26" y2="26" stroke="var(--rule-2)" />
      {plan.inHandUntil ? <rect {...bar(0, inHandEnd)} y="8" height="18" fill="var(--ink)" /> : null}
      {plan.ifOpened && plan.runOut ? (
        <rect {...bar(x(plan.orderOpens), x(plan.runOut))} y="8.5" height="17" fill={`url(#supply-${eye})`} stroke="var(--ink)" strokeDasharray="4 2" />
      ) : null}
      {plan.reorderBy ? <path d={`M${at(x(plan.reorderBy))} 27 l-5 7 h10Z`} fill="var(--ink)" /> : null}
      {[0, 4].map((d) => (
        <line key={d} x1={at(x(expiresOn) + d)} x2={at(x(expiresOn) + d)} y1="2" y2="30" stroke="var(--ink)" strokeWidth="1.6" />
      ))}
    </svg>
  );
}
