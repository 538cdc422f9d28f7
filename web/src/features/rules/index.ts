export { RulesPage } from './RulesPage';
