export { type Mesh, scaled } from './mesh/mesh';
export { readMesh } from './mesh/read-mesh';
export { looksLikeMesh } from './mesh/looks-like-mesh';
export { meshFigures } from './mesh/mesh-figures';
export { meshEdges } from './mesh/mesh-edges';
export { hull, hulls } from './mesh/hull';
export { boxAround, minimumBox, type TurnedBox } from './mesh/minimum-box';
export { inMetres, measureMesh, type MeasureStep, USUAL_OFFSET_M, USUAL_SHARE, withOffset } from './mesh/measure-mesh';
export { filledFraction } from './mesh/filled';
export { guessUnit, METRES_PER, UNIT_WORD } from './mesh/guess-unit';
export { type Plane, slice } from './mesh/slice';
export { type WallAt, wallThickness } from './mesh/wall-thickness';
export { finely, rmsOverSurface } from './mesh/finely';
export { registerScan } from './mesh/register-scan';
export { type Circle, circleThrough } from './mesh/circle-through';
export { density, densityDoubts, materialsByDensity } from './density';
export { worthMeasuring, type WorthMeasuring } from './worth-measuring';
export { type Grade, GRADES } from './alloy/grades';
export { type AlloyMatch, type Fractions, limitText, matchGrades, UNSEEN_BY_X_RAYS, WEAK_BY_X_RAYS } from './alloy/match-grades';
export { readDesignation } from './alloy/designation';
export { cueById, CUES } from './identify/cues';
export { likely, WORKS_WITH } from './identify/likely';
export { readMaterialMarking } from './identify/material-marking';
export { endsOf, type Loop } from './sections/loop-figures';
export { type Dimension, DIMENSION_WORD, dimensionFault, SECTION_SHAPES, sectionOf, type SectionShape } from './sections/shapes';
export { outlineFault, withoutRepeats } from './sections/outline-faults';
export { formulaOff, sectionFigures, type SectionFigures } from './sections/section-figures';
export { moved, type Place, type RigidMove } from './hole-patterns/best-fit';
export { type HoleFit, matchHoles } from './hole-patterns/match-holes';
export { drawnLonger, type FlatPlace, seenSquare } from './hole-patterns/seen-square';
export { meanReading, outliers } from './statistics/repeated';
export { type Crossed, gaugeResult, rangeStudy } from './statistics/gauge-study';
export { GAUGE_UNITS, gaugeReadingText, gaugeShown, gaugeSquareShown, readGaugeReading } from './statistics/gauge-units';
export { type Allowed, BY_CELLS, BY_RANGE, BY_VOLTAGE, packDoubts, statedDoubts } from './packs/plausible';
export { packFigures, topologyIssues } from './packs/topology';
export { coolCells, type CoolantState } from './packs/coolant';
export {
  boxesM3,
  PACK_U_FIELDS,
  PACK_WORDS,
  packDifference,
  packReport,
  type PackDifference,
  type PackReport,
  type Weighed,
} from './packs/pack-report';
export type { Carried } from './systems/carried';
export { figureRows, type FigureRow, type FigureWord, type FormulaLine } from './systems/figure-rows';
export { BOARD_DUTY_U_FIELDS, BOARD_DUTY_WORDS, boardDutyDifference, boardDutyReport, HEAT_LAYERS } from './boards/board-duty';
export { boardFigures } from './boards/board-figures';
export { lineText, supplyTree, type SupplyNode } from './boards/supply-tree';
export { HEATING_U_FIELDS, HEATING_WORDS, heatingDifference, heatingOf, type HeatingOf, heatingReport } from './heating/heating';
export { circuitOf, type Circuit } from './flow/circuit';
export { runCaseReport } from './flow/run-case-report';
export { runDetails } from './flow/run-details';
export { polylineM, portsById, routeOf, type PortsById } from './flow/routes';
export { CONDUCTOR_METALS, sameResistance } from './flow/conductors';
export { cableFigures, fluidsOf, loopOf, placedParts, runsOf, runTotals, type Run } from './flow/runs';
