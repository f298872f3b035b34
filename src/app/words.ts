import { createTranslator } from 'use-intl/core';
import eyes from '@/i18n/messages/en/eyes.messages.json';
import notFoundPage from '@/i18n/messages/en/notFoundPage.messages.json';
import prescription from '@/i18n/messages/en/prescription.messages.json';
import print from '@/i18n/messages/en/print.messages.json';
import purposes from '@/i18n/messages/en/purposes.messages.json';
import raw from '@/i18n/messages/en/raw.messages.json';
import refused from '@/i18n/messages/en/refused.messages.json';

const messages = { eyes, notFoundPage, prescription, print, purposes, raw, refused };

/** Words for pages made on the server alone. */
export const translator = <N extends keyof typeof messages>(namespace: N) => createTranslator({ locale: 'en', messages, namespace });
