import { OpenByLink } from '@/features/takeHome/OpenByLink';
import { PhonePage } from '@/features/takeHome/PhonePage';
import { homeLanguage, isChecked } from '@/features/common/takeHome/words';
import { perform } from '@/services/perform';
import { readTakeHome } from '@/services/takeHome/queries';
import { deps, homeLink } from '../access';

export const metadata = { title: 'Your lenses' };

/** The page to take home on the wearer's own telephone: a link opens it, and nothing else. */
export default async function Page() {
  const link = await homeLink();
  const read = link.ok && link.value.purpose === 'takeHome' ? await perform(readTakeHome, deps(), link.value, { visitId: link.value.subjectId }) : null;
  if (!read?.ok) return <OpenByLink />;
  const { sheet, checks } = read.value;
  const language = homeLanguage(sheet.language);
  return <PhonePage page={sheet.page} language={language} number={sheet.number} checked={isChecked(language, checks)} visitId={sheet.visitId} />;
}
