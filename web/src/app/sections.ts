import { frameWords as words } from './words';

export interface Section {
  name: string;
  /** Where each page is, and what it is called; the first is where the section begins. */
  pages: { to: string; name: string }[];
}

/** The sections with the pages that somebody may open. */
export function sections(may: { make: boolean; rule: boolean; own: boolean }): Section[] {
  const pages = (all: Record<string, [string, boolean]>) =>
    Object.entries(all)
      .filter(([, [, open]]) => open)
      .map(([to, [name]]) => ({ to, name }));
  const names = words.pages;
  return [
    may.make
      ? { name: names.today, pages: pages({ '/today': [names.today, true] }) }
      : { name: names.myDay, pages: pages({ '/my-day': [names.myDay, true] }) },
    { name: names.board, pages: pages({ '/board': [names.board, true] }) },
    {
      name: names.records,
      pages: pages({
        '/records': [names.records, true],
        '/deadlines': [names.deadlines, may.make && may.own],
      }),
    },
    { name: names.cover, pages: pages({ '/cover': [names.cover, may.make && may.own] }) },
    {
      name: names.calendars,
      pages: pages({
        '/calendars': [names.calendars, may.own],
        '/rules': [names.rules, may.rule],
        '/who-sees-what': [names.sight, may.rule],
        '/copies': [names.copies, may.own],
      }),
    },
    {
      name: names.crew,
      pages: pages({
        '/crew/people': [names.people, true],
        '/crew/teams': [names.teams, true],
        '/crew/places': [names.places, true],
        '/crew/limits': [names.limits, may.rule],
        '/crew/margins': [names.margins, may.rule],
        '/crew/regions': [names.regions, may.rule],
        '/crew/house': [names.house, may.rule],
        '/crew/changes': [names.changes, may.rule],
      }),
    },
  ].filter((one) => one.pages.length > 0);
}

/** The section and the page that an address is of. */
export function whereIs(pathname: string, all: Section[]) {
  for (const section of all) {
    const page = section.pages.find((one) => (pathname + '/').startsWith(one.to + '/'));
    if (page) {
      return { section, page };
    }
  }
  return undefined;
}
