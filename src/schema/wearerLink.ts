import { z } from 'zod';
import { uuid } from './fields';

export const endLinkForm = z.object({ linkId: uuid });
