import ICAL from 'ical.js';
import type { IsoDate, IsoInstant } from '../../core';

interface Named {
  /** The same thing said again has the same name. */
  readonly uid: string;
  readonly summary: string;
  readonly description: string;
  readonly location: string;
  readonly writtenAt: IsoInstant;
}
/** Something in a calendar that has its time. */
export interface CalendarEvent extends Named {
  readonly startsAt: IsoInstant;
  readonly minutes: number;
}
/** Something in a calendar that is a whole day, whatever zone it is read in. */
export interface CalendarDay extends Named {
  readonly day: IsoDate;
}

const utc = (at: IsoInstant): ICAL.Time => ICAL.Time.fromJSDate(new Date(at), true);

function componentOf(of: CalendarEvent | CalendarDay): ICAL.Component {
  const event = new ICAL.Component('vevent');
  event.updatePropertyWithValue('uid', of.uid);
  event.updatePropertyWithValue('dtstamp', utc(of.writtenAt));
  if ('day' in of) {
    event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(of.day));
    // A day that takes nobody's time.
    event.updatePropertyWithValue('transp', 'TRANSPARENT');
  } else {
    event.updatePropertyWithValue('dtstart', utc(of.startsAt));
    event.updatePropertyWithValue('dtend', utc(new Date(Date.parse(of.startsAt) + of.minutes * 60_000).toISOString()));
  }
  event.updatePropertyWithValue('summary', of.summary);
  event.updatePropertyWithValue('description', of.description);
  event.updatePropertyWithValue('location', of.location);
  return event;
}

/**
 * A calendar of some events; times in UTC: whatever zone it is opened in, they stand at their moment.
 * @source RFC 5545, written by ical.js
 */
export function icsOf(...events: readonly (CalendarEvent | CalendarDay)[]): string {
  const calendar = new ICAL.Component('vcalendar');
  calendar.updatePropertyWithValue('version', '2.0');
  calendar.updatePropertyWithValue('prodid', '-//Keen Fit//EN');
  calendar.updatePropertyWithValue('method', 'PUBLISH');
  for (const event of events) calendar.addSubcomponent(componentOf(event));
  return calendar.toString();
}
