export { copyText, isTrouble, type Copy } from './copies';
export { givenTo, INFORMED, LEAD, type RecordView } from './model';
export {
  fetchRecord,
  useCalendars,
  useChangeNow,
  useDetails,
  useFound,
  usePeople,
  usePlaces,
  useRecord,
  useReleases,
  useSeveral,
  useTeams,
  useUndo,
  useYes,
} from './queries';
export { RecordSide } from './RecordSide';
export { RecordsPage } from './RecordsPage';
export { dueLater, sentVisits, visitLater, type Shift } from './times';
export { reason } from './words';
export { useShortLine } from './useShortLine';
