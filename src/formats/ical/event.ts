import ICAL from 'ical.js';
import type { IsoInstant } from '../../core';

/** Something in a calendar. */
export interface CalendarEvent {
  /** The same thing said again has the same name. */
  readonly uid: string;
  readonly startsAt: IsoInstant;
  readonly minutes: number;
  readonly summary: string;
  readonly description: string;
  readonly location: string;
  readonly writtenAt: IsoInstant;
}

const utc = (at: IsoInstant): ICAL.Time => ICAL.Time.fromJSDate(new Date(at), true);

/**
 * A calendar of one event, its times in UTC: whatever zone it is opened in, it stands at its moment.
 * @source RFC 5545, written by ical.js
 */
export function icsOf(of: CalendarEvent): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Keen Fit//EN');
  calendar.updatePropertyWithValue('method', 'PUBLISH');
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', of.uid);
  event.updatePropertyWithValue('dtstamp', utc(of.writtenAt));
  event.updatePropertyWithValue('dtstart', utc(of.startsAt));
  event.updatePropertyWithValue('dtend', utc(new Date(Date.parse(of.startsAt) + of.minutes * 60_000).toISOString()));
  event.updatePropertyWithValue('summary', of.summary);
  event.updatePropertyWithValue('description', of.description);
  event.updatePropertyWithValue('location', of.location);
  calendar.addSubcomponent(event);
  return calendar.toString();
}
