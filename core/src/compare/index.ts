export { shareOrder } from './breakdown';
export { type CompareRow, compareVehicles, type Comparison, type Side } from './compare-vehicles';
export { comparisonCsv } from './comparison-csv';
export { comparisonGaps, comparisonSentences } from './sentences';
