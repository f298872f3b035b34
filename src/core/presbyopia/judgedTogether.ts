import { hasAdd } from '../lens/family';
import type { EyeState } from '../fit/eyeState';
import type { LensRow } from '../record/lens';
import { EYES, type Eye } from '../units';

/** Both eyes have a lens with an addition: then they are judged together, task by task. */
export const judgedTogether = (eyes: Readonly<Record<Eye, Pick<EyeState, 'onEye'>>>, rows: Readonly<Record<string, LensRow>>): boolean =>
  EYES.every((eye) => {
    const row = rows[eyes[eye].onEye?.current.lensId ?? ''];
    return row !== undefined && hasAdd(row);
  });
