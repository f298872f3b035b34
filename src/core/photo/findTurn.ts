import type { MarkLayout } from '../lens/family';
import type { Degrees, Eye } from '../units';
import { findLensEdge } from './lensEdge';
import { findLimbus } from './limbus';
import { markEvidence } from './markRing';
import { findMarks } from './marks';
import { channel, grainOf, halved, sampled, type Circle, type ColourPicture, type Plane } from './plane';

/** What somebody says of a picture before it is read. */
export interface AskedOfPhoto {
  readonly eye: Eye;
  readonly layout: MarkLayout;
  /** Degrees between neighbouring marks of `fiveSixSeven`; else of no account. */
  readonly spacing: Degrees;
  /** How far the line of the canthi is turned clockwise in the picture, degrees. */
  readonly roll: Degrees;
}

/** Where the lens sits in a picture, or why that is not said. */
export type TurnOfPhoto =
  | { readonly ok: true; readonly rotationLeft: Degrees; readonly limbus: Circle; readonly lens: Circle; readonly stands: number }
  | {
      readonly ok: false;
      readonly why: 'noEye' | 'noLens' | 'mirrored' | 'unclear' | 'rivals' | 'tooFew';
      readonly limbus: Circle | null;
      readonly lens: Circle | null;
    };

/** Longest side that is looked at, pixels: more shows nothing more of a mark. */
const READ_AT = 1100;

/** A picture small enough to be read. */
function smaller(plane: Plane): { readonly plane: Plane; readonly scale: number } {
  let [small, scale] = [plane, 1];
  for (; Math.max(small.width, small.height) > READ_AT; scale *= 2) small = halved(small);
  return { plane: small, scale };
}
const grown = ({ x, y, r }: Circle, by: number): Circle => ({ x: x * by, y: y * by, r: r * by });

/** A lens's edge that stands out less is none. Our own. */
const LEAST_EDGE = 3.5;
/** Grain from which a speck is no longer told from a mark, SD as a share of full white. Our own. */
const GRAINY = 0.027;
/** Where the caruncle lies, as shares of the limbus's radius. */
const CARUNCLE = [1.75, 1.9, 2] as const;
/** How much redder the one side must be to say where the nose is. Our own. */
const REDDER = 0.05;

/** On which side of the picture the nose lies, by the redness of the caruncle; null where neither side is redder. */
function noseSide(red: ReturnType<typeof channel>, green: ReturnType<typeof channel>, { x, y, r }: Circle, roll: Degrees): 'right' | 'left' | null {
  const a = (roll * Math.PI) / 180;
  const redness = (side: 1 | -1): number => {
    const each = CARUNCLE.flatMap((share) => [-0.12, 0, 0.12, 0.22].map((down) => ({ dx: side * share * r, dy: down * r }))).map(({ dx, dy }) => {
      const [px, py] = [x + dx * Math.cos(a) - dy * Math.sin(a), y + dx * Math.sin(a) + dy * Math.cos(a)];
      return sampled(red, px, py) - sampled(green, px, py);
    });
    return each.reduce((sum, v) => sum + v, 0) / each.length;
  };
  const apart = redness(1) - redness(-1);
  return Math.abs(apart) < REDDER ? null : apart > 0 ? 'right' : 'left';
}

/**
 * How a lens sits in a slit-lamp picture: the limbus, the lens's edge around it, its marks. An aid that is drawn over the picture and always
 * confirmed: it says nothing rather than guess, and nothing of a picture whose nose lies on the wrong side.
 * @param picture with the file's orientation applied
 * @returns degrees, the examiner's left positive
 */
export function findTurn(picture: ColourPicture, asked: AskedOfPhoto): TurnOfPhoto {
  const { plane: red, scale } = smaller(channel(picture, 0));
  const { plane: green } = smaller(channel(picture, 1));
  const limbus = findLimbus(red, asked.layout === 'twelve' ? 'above' : 'below');
  if (!limbus) return { ok: false, why: 'noEye', limbus: null, lens: null };
  const nose = noseSide(red, green, limbus.circle, asked.roll);
  // The examiner faces the wearer: the nose is at the right of a right eye.
  if (nose !== null && nose !== asked.eye) return { ok: false, why: 'mirrored', limbus: grown(limbus.circle, scale), lens: null };
  const edge = findLensEdge(red, limbus.circle);
  if (!edge || edge.stands < LEAST_EDGE) return { ok: false, why: 'noLens', limbus: grown(limbus.circle, scale), lens: null };
  const grain = grainOf(red) > GRAINY ? 'grainy' : 'fine';
  const marks = findMarks(markEvidence(red, green, edge.circle, { grain, limbus: limbus.circle }), { ...asked, grain });
  return marks.ok
    ? { ok: true, rotationLeft: marks.turn, limbus: grown(limbus.circle, scale), lens: grown(edge.circle, scale), stands: marks.stands }
    : { ok: false, why: marks.why, limbus: grown(limbus.circle, scale), lens: grown(edge.circle, scale) };
}
