export { ForWord } from './ForWord';
export { forKey, type For } from './model';
export { useNames, useRuleSet } from './queries';
export type { WishedFor } from './useRules';
