import { createTranslator } from 'use-intl/core';
import messages from '@/i18n/messages/en.json';

/** Words for pages made on the server alone. */
export const translator = <N extends keyof typeof messages>(namespace: N) => createTranslator({ locale: 'en', messages, namespace });
