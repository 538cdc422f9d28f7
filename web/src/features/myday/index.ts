export { MyDayPage } from './MyDayPage';
export { forgetDays } from './kept';
