import { daysInSphere, dktAt, EYES, lastLook, type Eye, type EyeState, type HealthState, type LookLine } from '@/core';
import type { DraftOf } from '../../shell/draftKeys';
import type { VisitRecord } from '../../shell/visitData';
import { sentenceKey, type ToPrescribe } from './model';

type PerEye<T> = Readonly<Record<Eye, T>>;

/** Eyes that would be signed for. */
export const includedIn = (plans: PerEye<ToPrescribe>): readonly Eye[] => EYES.filter((e) => plans[e].blocked === null && !plans[e].leftOut);

/** Can the laboratory be left to work the lens out? For every eye that is signed for, or for none. */
export function rawPossible(plans: PerEye<ToPrescribe>): boolean {
  const included = includedIn(plans);
  return included.length > 0 && included.every((e) => plans[e].rawReady);
}

/** The last look at one eye, for what would be signed. */
export function lookAt(
  eye: Eye,
  plan: ToPrescribe,
  of: { readonly record: VisitRecord; readonly state: EyeState; readonly health: HealthState; readonly raw: boolean; readonly overnight: boolean },
): readonly LookLine[] {
  const { family, lens, variant } = plan;
  const { record, state, health, raw, overnight } = of;
  const triedId = state.onEye?.current.lensId;
  const tried = triedId ? record.lenses[triedId] : undefined;
  const power = raw ? (tried ? { sphere: tried.sphereD, cylinder: tried.cylinderD } : null) : (lens?.power ?? null);
  return lastLook(state, health, eye, {
    wearsAdd: !raw && variant?.add != null,
    ...(family && power ? { dkt: dktAt(family, power) } : {}),
    overnight,
    overnightApproved: family?.overnightApproved ?? false,
    ...(family?.irregular
      ? {
          irregular: {
            cylinder: raw ? (state.overRefraction?.current.cylinderD ?? 0) : (lens?.power.cylinder ?? 0),
            daysInSphere: daysInSphere(eye, record.handOvers, (id) => record.lenses[id], record.session.today),
          },
        }
      : {}),
  });
}

/** Sentences typed for what is overridden. @param eye null for what is of both eyes */
export function sentencesFor(body: DraftOf<'prescription'>, eye: Eye | null, lines: readonly LookLine[]) {
  return lines.flatMap(({ code, state }) => {
    const reason = (body[sentenceKey(eye, code)] ?? '').trim();
    return state === 'asks' && reason !== '' ? [{ eye, code, reason }] : [];
  });
}

/** What is signed for one eye; null where nothing is. @param raw lens worn, over-refraction and turn instead of a lens */
export function eyeToSign(plan: ToPrescribe, triedId: string | undefined, raw: boolean) {
  const { family, lens, variant, blocked, leftOut } = plan;
  if (blocked !== null || leftOut) return null;
  if (raw) {
    const made = variant ?? plan.curves[0];
    return triedId && made ? { mode: 'raw' as const, triedLensOnEyeId: triedId, baseCurve: made.baseCurve, diameter: made.diameter } : null;
  }
  if (!family || !lens || !variant) return null;
  const { sphere, cylinder, axis } = lens.power;
  const { add, baseCurve, diameter } = variant;
  return { mode: 'final' as const, lens: { familyId: family.id, sphere, cylinder, axis, add, baseCurve, diameter }, triedLensOnEyeId: triedId ?? null };
}
