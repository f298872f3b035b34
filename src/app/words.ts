import { createTranslator } from 'use-intl/core';
import notFoundPage from '@/i18n/messages/en/notFoundPage.messages.json';
import refused from '@/i18n/messages/en/refused.messages.json';

const messages = { notFoundPage, refused };

/** Words for pages made on the server alone. */
export const translator = <N extends keyof typeof messages>(namespace: N) => createTranslator({ locale: 'en', messages, namespace });
