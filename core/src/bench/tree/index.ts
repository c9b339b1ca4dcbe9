export { type Place, type TreeChange } from './change';
export { copyParts, splitPart } from './copy-parts';
export { assembleParts, dissolvePart, type Given, giveParts, mergeParts } from './join-parts';
export { moveParts } from './move-parts';
export { mergeSubsystems, moveSubsystem, removeSubsystem } from './subsystems';
export { goesWith, type NamedPlace, placesOf } from './places';
