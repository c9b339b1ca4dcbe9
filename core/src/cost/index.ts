export { contentsBelow, type PartBelow } from './contents-below';
export { type CostLine, costLines, worthCosting } from './cost-lines';
export { studyShown, type StudyShown } from './cost-measures';
export { type ChainTerm, evidenceChain, type Measure, MEASURES, restsOn } from './evidence-chain';
export { basisOf, catalogueIssues, partCost, type PartCost } from './part-cost';
export { onlyPart, STUDY_LAYOUT, studyRollUp, type StudyRollUp, studyRollUpAfter } from './study-roll-up';
