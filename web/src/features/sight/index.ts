export { SightPage } from './SightPage';
