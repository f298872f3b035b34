const PREFIX = 'keenfit-draft:';

export interface KeptDraft {
  readonly body: Readonly<Record<string, string>>;
  readonly sequence: number;
}

/** A draft belongs to a visit, a step and its author. */
export const draftKey = (visitId: string, step: string, personId: string): string => `${PREFIX}${visitId}:${step}:${personId}`;

/** What this tab kept while the server was away, or null. */
export function readKept(key: string): KeptDraft | null {
  try {
    const text = sessionStorage.getItem(key);
    return text === null ? null : (JSON.parse(text) as KeptDraft);
  } catch {
    return null;
  }
}

export function keep(key: string, draft: KeptDraft): void {
  try {
    sessionStorage.setItem(key, JSON.stringify(draft));
  } catch {
    // A full or forbidden store: the server's copy is then the only one.
  }
}

export function forget(key: string): void {
  sessionStorage.removeItem(key);
}

/** At sign-out nothing of anybody's typing stays in the browser. */
export function forgetAll(): void {
  for (const key of Object.keys(sessionStorage)) if (key.startsWith(PREFIX)) sessionStorage.removeItem(key);
}
