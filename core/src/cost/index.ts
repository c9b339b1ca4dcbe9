export * from './contents-below';
export * from './cost-lines';
export * from './fastener-cost';
export * from './known-chain';
export * from './piece-cost';
export * from './study-roll-up';
