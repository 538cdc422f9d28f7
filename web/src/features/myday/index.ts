export { forgetDays } from './kept';
