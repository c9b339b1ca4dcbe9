export * from './breakdown';
export * from './compare-vehicles';
export * from './comparison-csv';
export * from './fastener-variants';
export * from './ratio-sentence';
export * from './sentences';
