import { z } from 'zod';
import { nameText, version } from './fields';

/** What a practice is called and where it is reached: printed on what it signs and on what wearers take home. */
export const practiceForm = z.object({
  version,
  name: nameText(120, 'nameRequired'),
  town: nameText(80, 'townRequired'),
  address: nameText(200, 'addressRequired'),
  telephone: nameText(40, 'telephoneRequired'),
  emergencyTelephone: nameText(40, 'emergencyRequired'),
});
