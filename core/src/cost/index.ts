export * from './contents-below';
export * from './cost-lines';
export * from './cost-measures';
export * from './fastener-cost';
export * from './evidence-chain';
export * from './part-cost';
export * from './study-roll-up';
