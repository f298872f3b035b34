import type { Sql } from '../../src/db/client';

/** Names made of syllables: many people share a given name, few a family name; accents, hyphens and apostrophes among them. */
const GIVEN = [
  'Ada',
  'Bo',
  'Célia',
  'Dov',
  'Elin',
  'Fay',
  'Goran',
  'Hua',
  'Iris',
  'Jonas',
  'Kaja',
  'Lev',
  'Mina',
  'Nils',
  'Ora',
  'Pía',
  'Quinn',
  'Rasa',
  'Sven',
  'Tess',
];
const MIDDLE = ['', '', '', ' Ann', ' Lou', ' Rae', ' Jo', ' Mae', ' Kit', '-Marie'];
const ONSET = [
  'Bar',
  'Cor',
  'Dal',
  'Fen',
  'Gar',
  'Hol',
  'Jas',
  'Kel',
  'Lor',
  'Mar',
  'Nor',
  'Ost',
  'Pel',
  'Quar',
  'Ros',
  'Sal',
  'Tor',
  'Vas',
  'Wen',
  'Zel',
  'O’Bar',
  'Mc Kel',
];
const CORE = ['a', 'e', 'i', 'o', 'u', 'an', 'en', 'in', 'on', 'er', 'ar', 'ö', 'ay', 'ea'];
const CODA = [
  'berg',
  'dale',
  'field',
  'gren',
  'holt',
  'kamp',
  'lund',
  'mont',
  'ness',
  'quist',
  'rick',
  'stad',
  'ton',
  'vik',
  'wick',
  'worth',
  'zak',
  'ski',
  'ova',
  'ez',
];

/** Adds wearers with made-up names. @param practiceId whose they are */
export async function addWearers(owner: Sql, practiceId: string, count: number, at: string): Promise<void> {
  await owner`
    with made as (
      select gen_random_uuid() as id, n,
        (${GIVEN}::text[])[1 + abs(hashint8extended(n, 1) % ${GIVEN.length})] || (${MIDDLE}::text[])[1 + abs(hashint8extended(n, 2) % ${MIDDLE.length})] || ' ' ||
        (${ONSET}::text[])[1 + abs(hashint8extended(n, 3) % ${ONSET.length})] || (${CORE}::text[])[1 + abs(hashint8extended(n, 4) % ${CORE.length})] || (${CODA}::text[])[1 + abs(hashint8extended(n, 5) % ${CODA.length})] as name
      from generate_series(1, ${count}::bigint) n),
    people as (
      insert into wearer (id, practice_id, record_number, created_at) select id, ${practiceId}, 100000 + n, ${at} from made returning id)
    insert into wearer_identity (wearer_id, practice_id, name, birth_date)
    select m.id, ${practiceId}, m.name, date '1940-01-01' + ((m.n * 13) % 28000)::int from made m join people p on p.id = m.id`;
  await owner`analyze wearer`;
  await owner`analyze wearer_identity`;
}
