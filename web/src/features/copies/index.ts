export { CopiesPage } from './CopiesPage';
export { OutsideLines } from './OutsideLines';
