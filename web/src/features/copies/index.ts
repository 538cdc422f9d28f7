export { GoesOut, useGoesOut } from './GoesOut';
export { useDecided } from './queries';
export { OutsideLines } from './OutsideLines';
