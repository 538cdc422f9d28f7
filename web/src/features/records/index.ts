export { copyText, isTrouble, type Copy } from './copies';
export { givenTo, INFORMED, LEAD, type RecordView } from './model';
export {
  fetchRecord,
  useChangeNow,
  useFound,
  useReading,
  useRecord,
  useReleases,
  useSeveral,
  useUndo,
  useYes,
} from './queries';
export { Many } from './Many';
export { RecordSide } from './RecordSide';
export { dueLater, sentVisits, visitLater, type Shift } from './times';
export { reason } from './words';
export { useShortLine } from './useShortLine';
