// Reads a person's calendars with tsdav, twice, and prints what it found as JSON.
// node read.mjs URL USER PASSWORD CALENDAR; between the two syncs it waits for a line on stdin.
import { createInterface } from 'node:readline';
import ICAL from 'ical.js';
import { DAVClient } from 'tsdav';

const [serverUrl, username, password, name] = process.argv.slice(2);
const client = new DAVClient({
  serverUrl,
  credentials: { username, password },
  authMethod: 'Basic',
  defaultAccountType: 'caldav',
});
await client.login();
const calendars = await client.fetchCalendars();
const calendar = calendars.find((c) => c.displayName === name);
const objects = await client.fetchCalendarObjects({ calendar });
const titles = objects.map((o) => {
  const component = new ICAL.Component(ICAL.parse(o.data));
  return component.getFirstSubcomponent('vevent').getFirstPropertyValue('summary');
});
console.log(JSON.stringify({ calendars: calendars.map((c) => c.displayName), titles }));
const lines = createInterface({ input: process.stdin })[Symbol.asyncIterator]();
await lines.next();
const synced = await client.smartCollectionSync({
  collection: { ...calendar, objects, objectMultiGet: client.calendarMultiGet.bind(client) },
  method: 'webdav',
  detailedResult: true,
  account: client.account,
});
console.log(
  JSON.stringify({
    created: synced.objects.created.length,
    updated: synced.objects.updated.map((o) => o.url),
    deleted: synced.objects.deleted.map((o) => o.url),
  }),
);
process.exit(0);
