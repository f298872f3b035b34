import type { IsoDate } from '../units';
import type { ExchangedPerson } from './exchanged';

/** How a person named in a file differs from a wearer of the record. */
export type PersonDoubt = 'nobodyNamed' | 'otherName' | 'otherBirthDate';

/** A name as it is compared: its parts in any order, letters alone. */
const parts = (name: string): string =>
  name
    .normalize('NFKD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .split(/[^\p{L}]+/u)
    .filter(Boolean)
    .sort()
    .join(' ');

/**
 * Whether a file is about this wearer: by name and birth date, as far as it names them.
 * @example whoseFile({ name: 'QUILLBY, Nessa', birthDate: '1992-03-14', telephone: null }, { name: 'Nessa Quillby', birthDate: '1992-03-14' }) → []
 */
export function whoseFile(person: ExchangedPerson | null, wearer: { readonly name: string; readonly birthDate: IsoDate }): readonly PersonDoubt[] {
  if (person === null || person.name.trim() === '') return ['nobodyNamed'];
  return [
    ...(parts(person.name) === parts(wearer.name) ? [] : (['otherName'] as const)),
    ...(person.birthDate !== null && person.birthDate !== wearer.birthDate ? (['otherBirthDate'] as const) : []),
  ];
}
