/**
 * Where a rule comes from. `T`: a fact of the trade, common practice, no written source; `P`: published, named in
 * `text`; `K`: this program's own choice, which a practice can change in its settings.
 */
export interface Source {
  readonly mark: 'T' | 'P' | 'K';
  readonly text: string;
}

export const TRADE: Source = { mark: 'T', text: 'common practice' };
export const OWN: Source = { mark: 'K', text: 'own choice, a practice setting' };
export const MEMORY: Source = { mark: 'P', text: 'published, from memory' };
