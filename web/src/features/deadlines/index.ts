export { Because } from './Because';
