import { z } from 'zod';
import { TAKE_HOME_WAYS } from '../core';
import { dayText, nameText, uuid } from './fields';

const language = z.string().regex(/^[a-z]{2}$/);
export const readHomePageForm = z.object({ visitId: uuid });
export const giveTakeHomeForm = z.object({ visitId: uuid, language, way: z.enum(TAKE_HOME_WAYS) });
export const readSheetForm = z.object({ sheetId: uuid });
export const takeHomeForm = z.object({ visitId: uuid });
/** `words`: which words the speaker looked at. */
export const checkLanguageForm = z.object({
  language,
  words: z.string().min(4).max(64),
  speaker: nameText(120, 'speakerRequired'),
  checkedOn: dayText('checkedOnRequired'),
});
/** What stands behind the hash of a link. */
export const homeTokenForm = z.object({ token: z.string().min(20).max(200) });
