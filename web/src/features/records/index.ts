export { givenTo, type RecordView } from './model';
export { useCalendars, useChangeNow, usePeople, usePlaces, useTeams, useUndo } from './queries';
export { RecordSide } from './RecordSide';
export { RecordsPage } from './RecordsPage';
