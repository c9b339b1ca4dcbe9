export * from './apply-ops';
export * from './blank';
export * from './contract';
export * from './new-study';
export * from './outline';
export * from './read-change';
export * from './row-faults';
export * from './rule-words';
