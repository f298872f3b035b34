import { renderToStaticMarkup } from 'react-dom/server';
import { describe, expect, it } from 'vitest';
import { Spine, SpineHead, SpineRow } from '../../src/ui/Spine';
import { LensToken } from '../../src/ui/LensToken';
import { EyeBadge, StateMark, Stated } from '../../src/ui/marks';

/** Numbers of the first element that matches, by attribute. */
function numbers(markup: string, pattern: RegExp): Record<string, number> {
  const element = pattern.exec(markup)?.[0] ?? '';
  return Object.fromEntries([...element.matchAll(/(x1|y1|x2|y2|r|cx|cy)="([-\d.]+)"/g)].map((m) => [m[1] ?? '', Number(m[2])]));
}
const token = (rotationLeft: number, axisGiven: number | null = null) =>
  renderToStaticMarkup(<LensToken size={48} ring="fits" geometry="toric" rotationLeft={rotationLeft} axisGiven={axisGiven} axisAsked={null} label="R" />);

describe('the lens token', () => {
  const mark = /<line[^>]*stroke-width="3.4"[^>]*>/;
  it('a lens that sits true has its mark at 6 o’clock', () => {
    const m = numbers(token(0), mark);
    expect(m.x2).toBeCloseTo(24, 6);
    expect(m.y2).toBeGreaterThan(24);
  });
  it('turned to the examiner’s left the mark is drawn left of the middle, to the right right', () => {
    expect(numbers(token(20), mark).x2).toBeLessThan(24);
    expect(numbers(token(-20), mark).x2).toBeGreaterThan(24);
  });
  it('the axis line rises to the right below 90 and to the left above it, as the examiner sees it', () => {
    const line = /<line[^>]*stroke-width="1.2"[^>]*>/;
    const low = numbers(token(0, 20), line);
    const high = numbers(token(0, 160), line);
    expect(Math.sign((low.y2 ?? 0) - (low.y1 ?? 0)) * Math.sign((low.x2 ?? 0) - (low.x1 ?? 0))).toBe(-1);
    expect(Math.sign((high.y2 ?? 0) - (high.y1 ?? 0)) * Math.sign((high.x2 ?? 0) - (high.x1 ?? 0))).toBe(1);
  });
  it.each([
    ['loose', 'stroke-dasharray="5 4"'],
    ['tight', 'r="13.5"'],
    ['unjudged', 'stroke-width="1.2"'],
  ] as const)('a %s lens shows it by its ring', (ring, shape) => {
    expect(renderToStaticMarkup(<LensToken size={32} ring={ring} geometry="sphere" rotationLeft={0} axisGiven={null} axisAsked={null} label="R" />)).toContain(
      shape,
    );
  });
  it('a sphere has a dot and no mark, a multifocal an inner ring', () => {
    const sphere = renderToStaticMarkup(<LensToken size={48} ring="fits" geometry="sphere" rotationLeft={0} axisGiven={null} axisAsked={null} label="R" />);
    expect(sphere).not.toMatch(mark);
    expect(sphere).toContain('r="1.8"');
    expect(
      renderToStaticMarkup(<LensToken size={48} ring="fits" geometry="multifocal" rotationLeft={0} axisGiven={null} axisAsked={null} label="R" />),
    ).toContain('r="7"');
  });
  it('is read out whole', () => {
    expect(token(0)).toContain('role="img" aria-label="R"');
  });
});

describe('the spine', () => {
  const words = { right: { name: 'Right eye', side: 'your left' }, left: { name: 'Left eye', side: 'your right' } };
  it('faces the wearer: the right eye stands first, on the left of the screen', () => {
    const markup = renderToStaticMarkup(
      <Spine label="x">
        <SpineHead words={words} label="y" />
        <SpineRow label="Row" right="for R" left="for L" />
      </Spine>,
    );
    expect(markup.indexOf('Right eye')).toBeLessThan(markup.indexOf('Left eye'));
    expect(markup.indexOf('for R')).toBeLessThan(markup.indexOf('Row'));
    expect(markup.indexOf('Row')).toBeLessThan(markup.indexOf('for L'));
    expect(markup.indexOf('your left')).toBeLessThan(markup.indexOf('Right eye'));
  });
  it('a chosen row says so in its data, not by colour alone', () => {
    expect(renderToStaticMarkup(<SpineRow chosen label="a" right="b" left="c" />)).toContain('data-chosen="true"');
  });
});

describe('marks', () => {
  it('the eyes’ badges differ by shape and letter', () => {
    const [r, l] = [renderToStaticMarkup(<EyeBadge eye="right" />), renderToStaticMarkup(<EyeBadge eye="left" />)];
    expect(r).toContain('>R<');
    expect(l).toContain('>L<');
    expect(/class="([^"]+)"/.exec(r)?.[1]).not.toBe(/class="([^"]+)"/.exec(l)?.[1]);
  });
  it('each state has a shape of its own, and its word stands beside it', () => {
    const shapes = (['ok', 'watch', 'stop', 'miss'] as const).map((state) => renderToStaticMarkup(<StateMark state={state} />).replace(/class="[^"]*"/, ''));
    expect(new Set(shapes).size).toBe(4);
    expect(renderToStaticMarkup(<Stated state="stop">measure again</Stated>)).toContain('measure again');
  });
});
