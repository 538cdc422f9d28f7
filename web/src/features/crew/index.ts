export { CrewPage } from './CrewPage';
