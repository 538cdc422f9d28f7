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
}

export const viewerZone = dayjs.tz.guess();

/** A due time in its own zone; the zone is told where it is not the viewer's. */
export function dueText(due: Due | undefined): string {
  if (!due) {
    return '';
  }
  if (due.date) {
    return dayjs(due.date).format('ddd D MMM');
  }
  return dayjs(due.at).format('ddd D MMM, HH:mm') + zoneNote(due.zone, due.instant);
}

function zoneNote(zone: string | undefined, instant: string | undefined): string {
  if (!zone || !instant) {
    return '';
  }
  const same = dayjs(instant).tz(zone).utcOffset() === dayjs(instant).tz(viewerZone).utcOffset();
  return same ? '' : ' (' + zone.replace('_', ' ').split('/').pop() + ')';
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
    const first = dayjs(span.first).format('ddd D MMM');
    return span.first === span.last ? first : first + ' – ' + dayjs(span.last).format('ddd D MMM');
  }
  const start = dayjs(span.start);
  const end = dayjs(span.end);
  const sameDay = start.isSame(end, 'day');
  return (
    start.format('ddd D MMM HH:mm') + ' – ' + end.format(sameDay ? 'HH:mm' : 'ddd D MMM HH:mm')
  );
}

export function momentText(instant: string): string {
  return dayjs(instant).format('ddd D MMM, HH:mm');
}

export function isPast(due: Due | undefined): boolean {
  if (due?.instant) {
    return dayjs(due.instant).isBefore(dayjs());
  }
  return due?.date ? dayjs(due.date).add(1, 'day').isBefore(dayjs()) : false;
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

function thisYearOrNext(month: number, day: number): dayjs.Dayjs | null {
  const here = dayjs().startOf('day').date(1).month(month).date(day);
  if (here.month() !== month) {
    return null;
  }
  return here.isBefore(dayjs().subtract(60, 'day')) ? here.add(1, 'year') : here;
}
