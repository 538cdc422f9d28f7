export { leftBy, useAhead, type Ahead } from './ahead';
export { Breaks, ChosenDays, triedPeople } from './Breaks';
export { CoverCounts } from './Counts';
export { CoverSoon } from './CoverSoon';
export { CoverRows } from './CoverRows';
export { useSkillsEnding, useTakers, type HeldVisit, type Taker } from './queries';
export { useTrial, type Planned } from './useTrial';
export { WhenCould } from './WhenCould';
export { CoverSummary } from './CoverSummary';
