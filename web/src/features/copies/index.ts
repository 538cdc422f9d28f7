export { CopiesPage } from './CopiesPage';
export { useCopiesOf, useOutsideChanges } from './queries';
export { copyText } from './model';
