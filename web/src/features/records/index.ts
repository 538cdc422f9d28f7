export { RecordsPage } from './RecordsPage';
export { useUndo } from './queries';
