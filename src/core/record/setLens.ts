import type { DiagnosticLensPast } from '../irregular/readiness';
import type { LensSpec } from './lens';

/** One lens of a diagnostic set, with all that decides whether it may go on an eye. */
export interface SetLens extends LensSpec, DiagnosticLensPast {
  readonly id: string;
  readonly lensId: string;
  /** Its set: the family's code, and its name as it is now. */
  readonly setCode: string;
  readonly setName: string;
  /** As it stands on its vial; it says nothing outside its own set. */
  readonly number: string;
  readonly expiresOn: string;
  /** By the set's own instructions, as they stand. */
  readonly disinfectWith: string | null;
  readonly disinfectMinutes: number | null;
}
