import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { families } from '../fixtures';
import { AxisFan } from '../../src/features/common/range/AxisFan';
import { RangeMap, type OnMap } from '../../src/features/common/range/RangeMap';
import { en } from '../../src/i18n/messages/en';
import { MessagesProvider } from '../../src/i18n/MessagesProvider';

const inWords = (drawing: React.ReactNode): string =>
  renderToStaticMarkup(
    <MessagesProvider timeZone="UTC" words={en}>
      {drawing}
    </MessagesProvider>,
  );
const family = (code: string) => {
  const found = families.find((f) => f.code === code);
  if (!found) throw new Error(code);
  return found;
};
const NOBODY: OnMap = { need: null, given: null };
const bars = (markup: string): number => [...markup.matchAll(/<rect[^>]*fill="var\(--rule-2\)"/g)].length;
const map = (code: string, right: OnMap = NOBODY, announcedOf?: string): string =>
  inWords(
    <RangeMap
      blocks={family(code).blocks}
      {...(announcedOf ? { announced: family(announcedOf).blocks } : {})}
      eyes={{ right, left: NOBODY }}
      add={null}
      label="range"
    />,
  );
/** Where the cross of the right eye stands. */
const cross = (markup: string): readonly [x: number, y: number] => {
  const [, x, y] = /M([\d.]+) ([\d.]+)h16/.exec(markup) ?? [];
  return [Number(x) + 8, Number(y)];
};

describe('the range map', () => {
  it('has one bar for each sphere and cylinder made', () => {
    // 55 spheres (49 in quarters, 6 in halves) with 4 cylinders; spheres alone are one row.
    expect(bars(map('plover-30-toric'))).toBe(55 * 4);
    expect(bars(map('turnstone-30'))).toBe(49 + 12 + 4);
    expect(bars(map('curlew-multifocal'))).toBe(57 * 3);
  });
  it('puts more minus further left and more cylinder lower', () => {
    const at = (sphere: number, cylinder: number) => cross(map('plover-30-toric', { need: { sphere, cylinder, axis: 20 }, given: null }));
    expect(at(-4, -1)[0]).toBeLessThan(at(-2, -1)[0]);
    expect(at(-3, -2)[1]).toBeGreaterThan(at(-3, -1)[1]);
    // A need half-way between two rows stands half-way.
    const rows = [at(-3, -0.75), at(-3, -1), at(-3, -1.25)].map((c) => c[1]);
    expect((rows[1] ?? 0) - (rows[0] ?? 0)).toBeCloseTo((rows[2] ?? 0) - (rows[1] ?? 0), 6);
  });
  it('a need past the range stays on the picture', () => {
    const [x] = cross(map('plover-30-toric', { need: { sphere: -25, cylinder: -6, axis: 20 }, given: null }));
    expect(x).toBeGreaterThanOrEqual(0);
  });
  it('rules the cell that is given, and draws what is only announced with a dashed edge', () => {
    expect(map('plover-30-toric', { need: { sphere: -3.1, cylinder: -1.6, axis: 20 }, given: { sphere: -3, cylinder: -1.75, axis: 20 } })).toContain(
      'stroke-width="2.4"',
    );
    expect(map('dunlin-1-day-toric', NOBODY, 'plover-30-toric')).toContain('stroke-dasharray="2 2"');
    expect(map('plover-30-toric', NOBODY, 'plover-30-toric')).not.toContain('stroke-dasharray="2 2"');
  });
});

describe('the axis fan', () => {
  const ends = (markup: string, pattern: RegExp): readonly number[] => (pattern.exec(markup)?.slice(1) ?? []).map(Number);
  it('as the examiner sees it: axis 20 lies to the right, 160 to the left, 90 upright', () => {
    const heavy = /d="M([\d.]+) ([\d.]+)L([\d.]+) ([\d.]+)"[^>]*stroke-width="4"/;
    const tip = (axis: number) => ends(inWords(<AxisFan made={[axis]} given={axis} asked={null} />), heavy);
    expect(tip(20)[2]).toBeGreaterThan(110);
    expect(tip(160)[2]).toBeLessThan(110);
    expect(tip(90)[2]).toBeCloseTo(110, 1);
    expect(tip(90)[3]).toBeLessThan(104);
  });
  it('long ticks are made, short ones are not; what it says is what it shows', () => {
    const markup = inWords(<AxisFan made={[10, 20, 30]} given={20} asked={17.6} />);
    expect([...markup.matchAll(/stroke-width="1.6"/g)]).toHaveLength(3);
    expect(markup).toContain('3 axes made here, required 18, 20 given');
  });
});
