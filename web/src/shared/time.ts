import dayjs from 'dayjs';
import timezone from 'dayjs/plugin/timezone';
import utc from 'dayjs/plugin/utc';

dayjs.extend(utc);
dayjs.extend(timezone);

/** The only place that formats dates and knows zones. */
export interface Due {
  at?: string;
  zone?: string;
  date?: string;
  instant?: string;
  overdueFrom?: string;
}

export const viewerZone = dayjs.tz.guess();

const FAR_DAYS = 300;

/** A day as people say it; with its year where that is not plain. */
function dayOf(day: dayjs.Dayjs): string {
  const far = Math.abs(day.diff(dayjs(), 'day')) > FAR_DAYS;
  return day.format(far ? 'ddd D MMM YYYY' : 'ddd D MMM');
}

/** A due time in its own zone; the zone is told where it is not the viewer's. */
export function dueText(due: Due | undefined): string {
  if (!due) {
    return '';
  }
  if (due.date) {
    return dayOf(dayjs(due.date));
  }
  const at = dayjs(due.at);
  return dayOf(at) + at.format(', HH:mm') + zoneNote(due.zone, due.instant);
}

const notes = new Map<string, string>();

function zoneNote(zone: string | undefined, instant: string | undefined): string {
  if (!zone || !instant || zone === viewerZone) {
    return '';
  }
  // Asked for thousands of lines; zones change their offset on the hour.
  const key = zone + instant.slice(0, 13);
  let note = notes.get(key);
  if (note === undefined) {
    const same = dayjs(instant).tz(zone).utcOffset() === dayjs(instant).tz(viewerZone).utcOffset();
    note = same ? '' : ' (' + zone.replace('_', ' ').split('/').pop() + ')';
    notes.set(key, note);
  }
  return note;
}

export interface Span {
  start?: string;
  end?: string;
  zone?: string;
  first?: string;
  last?: string;
}

export function spanText(span: Span): string {
  if (span.first) {
    const first = dayOf(dayjs(span.first));
    return span.first === span.last ? first : first + ' – ' + dayOf(dayjs(span.last));
  }
  const start = dayjs(span.start);
  const end = dayjs(span.end);
  const sameDay = start.isSame(end, 'day');
  const until = (sameDay ? '' : dayOf(end) + ' ') + end.format('HH:mm');
  return dayOf(start) + start.format(' HH:mm') + ' – ' + until;
}

/** "Thu 26, 18:30–20:30"; whole days without the times: "Sat 5 – Tue 8". */
export function shortSpanText(start: string, end: string): string {
  const from = dayjs(start);
  const until = dayjs(end);
  const day = (at: dayjs.Dayjs) => at.format('ddd D');
  const whole = [from, until].every((at) => at.format('HH:mm') === '00:00') && from.isBefore(until);
  if (whole) {
    const last = until.subtract(1, 'minute');
    return last.isSame(from, 'day') ? day(from) : `${day(from)} – ${day(last)}`;
  }
  const over = until.isSame(from, 'day') ? '' : until.format('ddd ');
  return `${day(from)}, ${from.format('HH:mm')}–${over}${until.format('HH:mm')}`;
}

/** Today's date where the viewer is, as 2026-11-25. */
export function today(): string {
  return dayjs().format('YYYY-MM-DD');
}

/** This very moment, in milliseconds. */
export function nowMoment(): number {
  return dayjs().valueOf();
}

export function addDays(date: string, days: number): string {
  return dayjs.utc(date).add(days, 'day').format('YYYY-MM-DD');
}

export function daysBetween(from: string, to: string): number {
  return dayjs.utc(to).diff(dayjs.utc(from), 'day');
}

/** The Monday on or before a date. */
export function mondayOf(date: string): string {
  return addDays(date, -((dayjs.utc(date).day() + 6) % 7));
}

const starts = new Map<string, number>();

/** The moment a date, or one so many days later, begins in a zone. */
export function dayStart(date: string, zone: string, later = 0): number {
  const key = date + zone + later;
  let found = starts.get(key);
  if (found === undefined) {
    found = dayjs.tz(addDays(date, later), zone).valueOf();
    starts.set(key, found);
  }
  return found;
}

/** A moment as local time in a zone: 2026-11-25T08:30. */
export function localAt(moment: number, zone: string): string {
  return dayjs(moment).tz(zone).format('YYYY-MM-DDTHH:mm');
}

/** The moment at a time of day between two moments, both included; null where there is none. */
export function momentWithin(
  clock: string,
  start: string,
  end: string,
  zone: string,
): string | null {
  const first = dayjs(start).tz(zone).format('YYYY-MM-DD');
  for (const day of [first, addDays(first, 1)]) {
    const moment = dayjs.tz(`${day}T${clock}`, zone);
    if (clock && !moment.isBefore(start) && !moment.isAfter(end)) {
      return moment.toISOString();
    }
  }
  return null;
}

/** Hours within a day of a zone: 07–19, 06:30–14; its end is 24. */
export function hoursText(start: number, end: number, zone: string): string {
  const clock = (moment: number) => clockOf(localAt(moment, zone)).replace(/:00$/, '');
  const until = clock(end);
  return `${clock(start)}–${until === '00' ? '24' : until}`;
}

/** A local time so much later on the clock. */
export function laterOnClock(local: string, days: number, minutes: number): string {
  return dayjs.utc(local).add(days, 'day').add(minutes, 'minute').format('YYYY-MM-DDTHH:mm');
}

/** By the clock, from one local time to another. */
export function minutesBetween(from: string, until: string): number {
  return dayjs.utc(until).diff(dayjs.utc(from), 'minute');
}

/** The clock of a local time: 08:30. */
export function clockOf(local: string): string {
  return local.slice(11, 16);
}

/** What tells a zone apart from the viewer's at a moment; nothing where they agree. */
export function zoneMark(zone: string | undefined, instant: string | undefined): string {
  return zoneNote(zone, instant);
}

export function weekdayText(date: string): string {
  return dayjs.utc(date).format('ddd');
}

export function dayNumber(date: string): string {
  return dayjs.utc(date).format('D');
}

export function longDayText(date: string): string {
  return dayjs.utc(date).format('dddd D MMMM');
}

/** A month, with its year where a year begins. */
export function monthText(date: string): string {
  return dayjs.utc(date).format(date.slice(5, 7) === '01' ? 'MMM YYYY' : 'MMM');
}

export function shortDayText(date: string): string {
  return dayjs.utc(date).format('ddd D MMM');
}

/** Several days as people say them: 23 – 29 November. */
export function daysText(first: string, last: string): string {
  const a = dayjs.utc(first);
  const b = dayjs.utc(last);
  if (first === last) {
    return a.format('dddd D MMMM');
  }
  const year = a.year() === dayjs().year() ? '' : ' YYYY';
  return a.month() === b.month() && a.year() === b.year()
    ? a.format('D') + ' – ' + b.format('D MMMM' + year)
    : a.format('D MMM' + (a.year() === b.year() ? '' : ' YYYY')) + ' – ' + b.format('D MMM' + year);
}

/**
 * A span as it is told of what is short, in the site's zone: the second weekday only where the last
 * minute is on another day, and midnight at the end is 24:00.
 */
/** Days of leave, or some hours of one. */
export function leaveText(leave: {
  first: string;
  last: string;
  hours?: { from: string; until: string };
}): string {
  const days = spanText({ first: leave.first, last: leave.last });
  return leave.hours ? `${days}, ${leave.hours.from} – ${leave.hours.until}` : days;
}

export function gapText(start: string, end: string, zone: string): string {
  const begins = dayjs(start).tz(zone);
  const ends = dayjs(end).tz(zone);
  const last = ends.subtract(1, 'minute');
  const clock = ends.format('HH:mm') === '00:00' ? '24:00' : ends.format('HH:mm');
  const [first, until] = [begins, last].map((at) => at.format('YYYY-MM-DD'));
  const day =
    until === first ? '' : last.format(until! < addDays(first!, 6) ? 'ddd ' : 'ddd D MMM, ');
  return begins.format('ddd D MMM, HH:mm') + ' – ' + day + clock;
}

export function momentText(instant: string): string {
  return dayjs(instant).format('ddd D MMM, HH:mm');
}

/** Whether open work that is due then is overdue by now; the server says from when on. */
export function isOverdue(due: Due | undefined): boolean {
  return due?.overdueFrom !== undefined && Date.parse(due.overdueFrom) <= nowMoment();
}

/** The form in which a due time is edited. */
export function dueInput(due: Due | undefined): string {
  if (!due) {
    return '';
  }
  return due.date ? dayjs(due.date).format('D MMM YYYY') : dayjs(due.at).format('D MMM YYYY HH:mm');
}

const DAYS = ['sun', 'mon', 'tue', 'wed', 'thu', 'fri', 'sat'];
const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');

/**
 * Reads a due time as people type it: "Fri 13:00", "tomorrow 9", "27 Nov 13:00", "2026-11-27",
 * "today". Null where it is none.
 */
export function readDue(text: string): Due | null {
  const words = text.trim().toLowerCase().replace(/,/g, ' ').split(/\s+/).filter(Boolean);
  let day = null as dayjs.Dayjs | null;
  let time: [number, number] | null = null;
  let pendingDay: number | null = null;
  for (const word of words) {
    const iso = /^(\d{4})-(\d{2})-(\d{2})(?:t(\d{2}:\d{2}))?$/.exec(word);
    const clock = /^(\d{1,2})[:.](\d{2})$/.exec(word);
    const weekday = DAYS.findIndex((d) => word.length >= 3 && word.startsWith(d));
    const month = MONTHS.findIndex((m) => word.startsWith(m));
    if (iso) {
      day = dayjs(`${iso[1]}-${iso[2]}-${iso[3]}`);
      if (iso[4]) {
        time = [Number(iso[4].slice(0, 2)), Number(iso[4].slice(3))];
      }
    } else if (word === 'today') {
      day = dayjs().startOf('day');
    } else if (word === 'tomorrow') {
      day = dayjs().startOf('day').add(1, 'day');
    } else if (clock && Number(clock[1]) < 24 && Number(clock[2]) < 60) {
      time = [Number(clock[1]), Number(clock[2])];
    } else if (weekday >= 0) {
      const ahead = (weekday - dayjs().day() + 7) % 7;
      day = dayjs().startOf('day').add(ahead, 'day');
    } else if (month >= 0 && pendingDay !== null) {
      day = thisYearOrNext(month, pendingDay);
      pendingDay = null;
    } else if (/^\d{4}$/.test(word) && day && Number(word) > 1989 && Number(word) < 2200) {
      day = day.year(Number(word));
    } else if (/^\d{1,2}$/.test(word) && pendingDay === null) {
      pendingDay = Number(word);
    } else {
      return null;
    }
  }
  if (pendingDay !== null) {
    if (time !== null || day === null || pendingDay > 23) {
      return null;
    }
    time = [pendingDay, 0];
  }
  if (!day && time) {
    day = dayjs().startOf('day');
  }
  if (!day?.isValid()) {
    return null;
  }
  return time
    ? { at: day.hour(time[0]).minute(time[1]).format('YYYY-MM-DDTHH:mm') }
    : { date: day.format('YYYY-MM-DD') };
}

/** Reads a time of day as people type it: "8", "8:30", "8.30", "830". Null where it is none. */
export function readClock(text: string): string | null {
  const [, hour = '', minute = '00'] =
    /^(\d{1,2})(?:[:.]?(\d{2}))?$/.exec(text.trim()) ?? ([] as string[]);
  return hour !== '' && Number(hour) < 24 && Number(minute) < 60
    ? `${hour.padStart(2, '0')}:${minute}`
    : null;
}

/** A span as people type it, or days; the last included. */
export interface TypedSpan {
  start?: string;
  end?: string;
  first?: string;
  last?: string;
}

const CLOCK = /^(\d{1,2})(?:[:.](\d{2}))?$/;

/**
 * Reads a span as people type it: "Wed 8-15", "25 Nov 08:30 – 26 Nov 12:00", "25 – 27 Nov",
 * "tomorrow". An end that is not after its start is on the next day; a start alone lasts as long
 * as is usual. Null where it is none.
 */
export function readSpan(text: string, usualMinutes: number): TypedSpan | null {
  // Dates written 2026-11-25 hold the mark that parts the two ends.
  const parts = text
    .trim()
    .replace(/(\d{4})-(\d{2})-(\d{2})/g, '$1/$2/$3')
    .split(/\s*(?:–|—|-|\bto\b|\buntil\b)\s*/i)
    .map((part) => part.replace(/(\d{4})\/(\d{2})\/(\d{2})/g, '$1-$2-$3'));
  if (parts.length > 2 || !parts[0]) {
    return null;
  }
  const [left, right] = [parts[0], parts[1] ?? ''];
  const month = /[a-z]{3,}.*$/i.exec(right)?.[0] ?? '';
  const from = readDue(/^\d{1,2}$/.test(left) && month ? `${left} ${month}` : left);
  if (!from) {
    return null;
  }
  if (!right) {
    return from.at
      ? { start: from.at, end: laterOnClock(from.at, 0, usualMinutes) }
      : { first: from.date, last: from.date };
  }
  const clock = CLOCK.exec(right);
  if (from.at && clock && Number(clock[1]) < 25 && Number(clock[2] ?? 0) < 60) {
    const end = laterOnClock(
      from.at.slice(0, 11) + '00:00',
      0,
      Number(clock[1]) * 60 + Number(clock[2] ?? 0),
    );
    return { start: from.at, end: end > from.at ? end : laterOnClock(end, 1, 0) };
  }
  const until = readDue(right);
  if (from.at && until?.at) {
    return until.at >= from.at ? { start: from.at, end: until.at } : null;
  }
  return from.date && until?.date && until.date >= from.date
    ? { first: from.date, last: until.date }
    : null;
}

/** The form in which a span is edited. */
export function spanInput(span: TypedSpan): string {
  const day = (date: string) => dayjs.utc(date).format('D MMM YYYY');
  if (span.start && span.end) {
    const sameDay = span.start.slice(0, 10) === span.end.slice(0, 10);
    const end = sameDay ? clockOf(span.end) : day(span.end) + ' ' + clockOf(span.end);
    return `${day(span.start)} ${clockOf(span.start)} – ${end}`;
  }
  if (span.first && span.last) {
    return span.first === span.last ? day(span.first) : `${day(span.first)} – ${day(span.last)}`;
  }
  return '';
}

function thisYearOrNext(month: number, day: number): dayjs.Dayjs | null {
  const here = dayjs().startOf('day').date(1).month(month).date(day);
  if (here.month() !== month) {
    return null;
  }
  return here.isBefore(dayjs().subtract(60, 'day')) ? here.add(1, 'year') : here;
}
