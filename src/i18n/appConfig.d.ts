import type { en } from './messages/en';

declare module 'use-intl' {
  interface AppConfig {
    Locale: 'en';
    Messages: typeof en;
  }
}
