export { useAhead, type Ahead } from './ahead';
export { CoverCounts } from './Counts';
export { CoverRows } from './CoverRows';
export { useTakers, type HeldVisit, type Taker } from './queries';
export { WhenCould } from './WhenCould';
export { CoverSummary } from './CoverSummary';
