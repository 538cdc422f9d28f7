export { BoardPage } from './BoardPage';
export { CrewWeek } from './CrewWeek';
