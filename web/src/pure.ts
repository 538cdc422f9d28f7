/** The modules that only compute, as tests ask them: one script, loaded in a page of its own. */
export { whoIsSick } from './app/sick';
export { packRails } from './features/board/lanes';
export {
  headerOf,
  linesOf,
  withHeader,
  withLine,
  withoutLine,
} from './features/deadlines/chainLines';
export { changesOf, draftOf, newRecord } from './features/records/model';
export { readShortLine } from './features/records/shortLine';
export { joined, moved } from './features/rules/model';
export { daysText, readClock, readDue, readSpan, spanInput } from './shared/time';
