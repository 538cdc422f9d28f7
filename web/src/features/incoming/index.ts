export { IncomingPage } from './IncomingPage';
