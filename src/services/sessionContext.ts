import 'server-only';
import type { PracticeSettings, Role } from '../core';
import type { Context } from './define';

/** Who looks at the record. */
export interface Viewer {
  readonly personId: string;
  readonly name: string;
  readonly title: string;
  readonly account: string;
  readonly registerNumber: string | null;
  readonly roles: readonly Role[];
}

/** The practice, the moment and the person: what every page shows. */
export interface SessionContext {
  readonly practice: {
    readonly name: string;
    readonly town: string;
    readonly address: string;
    readonly telephone: string;
    readonly emergencyTelephone: string | null;
    readonly timeZone: string;
    readonly locale: string;
    readonly currency: string;
  };
  readonly settings: PracticeSettings;
  readonly now: string;
  readonly today: string;
  readonly viewer: Viewer;
  readonly mode: 'production' | 'demo' | 'test';
  /** Can a slit-lamp camera be asked for pictures? */
  readonly camera: boolean;
}

export function sessionContextOf(context: Context): SessionContext {
  const { practice, caller } = context;
  return {
    practice: {
      name: practice.name,
      town: practice.town,
      address: practice.address,
      telephone: practice.telephone,
      emergencyTelephone: practice.emergencyTelephone,
      timeZone: practice.timeZone,
      locale: practice.locale,
      currency: practice.currency,
    },
    settings: context.settings,
    now: context.now,
    today: context.today,
    viewer: {
      personId: caller.personId,
      name: caller.name,
      title: caller.title,
      account: caller.account,
      registerNumber: caller.registerNumber,
      roles: caller.roles,
    },
    mode: context.mode,
    camera: context.camera,
  };
}
