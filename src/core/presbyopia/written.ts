import type { TaskOutlook } from './nextChange';
import type { PairChange } from './pair';

const signed = (value: number): string => `${value < 0 ? '-' : '+'}${Math.abs(value).toFixed(2)}`;

/** A change as it is kept. @example writtenChange({kind: 'sphere', eye: 'left', by: 0.25}) → 'sphere left +0.25' */
export function writtenChange(change: PairChange): string {
  switch (change.kind) {
    case 'sphere':
      return `sphere ${change.eye} ${signed(change.by)}`;
    case 'add':
      return `add ${change.eye} ${change.to ?? 'none'}`;
    case 'swap':
      return 'swap';
    case 'toric':
      return `toric ${change.eye}`;
  }
}

/**
 * What is foretold of one task as it is kept: vergence in D, acuity now and then in logMAR, satisfaction then of ten.
 * @example writtenOutlook({demand: {vergence: 2.5, light: 'room', needs: 0.2}, now: 0.4, then: 0.2, satisfactionThen: 8, linesShort: 0}) → '2.50 0.40 0.20 8.0'
 */
export const writtenOutlook = (of: TaskOutlook): string =>
  `${of.demand.vergence.toFixed(2)} ${of.now.toFixed(2)} ${of.then.toFixed(2)} ${of.satisfactionThen.toFixed(1)}`;
