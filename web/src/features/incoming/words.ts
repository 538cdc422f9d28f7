import text from './words.json';

/** Everything the page for files says. */
export const words = {
  ...text,
  whats: [
    { value: 'RECORDS', label: 'Records' },
    { value: 'PEOPLE', label: 'People' },
    { value: 'PLACES', label: 'Places' },
  ],
  kinds: [
    { value: 'TICKET', label: 'tickets' },
    { value: 'JOB', label: 'jobs' },
    { value: 'SHIFT', label: 'shifts' },
    { value: 'DEADLINE', label: 'deadlines' },
  ],
  strokesChoices: [
    { value: 'DAY_FIRST', label: '3 April' },
    { value: 'MONTH_FIRST', label: '4 March' },
  ],
  column: (name: string) => `Column ${name} holds`,
  moreRows: (n: number) => `and ${n.toLocaleString('en-GB')} ${n === 1 ? 'row' : 'rows'} more`,
  rows: (first: number, n: number) => `Row ${first}` + (n > 1 ? ` and ${n - 1} more` : ''),
  cell: (row: number, column: string) => `${column} from row ${row} on`,
  useNear: (near: string) => `Use ${near}`,
  take: (n: number) => `Import ${n.toLocaleString('en-GB')} ${n === 1 ? 'row' : 'rows'}`,
  taking: (done: number, of: number) =>
    `${done.toLocaleString('en-GB')} of ${of.toLocaleString('en-GB')} rows imported`,
  taken: (n: number, calendars: number) =>
    `${n.toLocaleString('en-GB')} ${n === 1 ? 'row' : 'rows'} imported` +
    (calendars > 0 ? ` on ${calendars} ${calendars === 1 ? 'calendar' : 'calendars'}` : ''),
};
