import { HyperFormula } from 'hyperformula';
import type { StudyRecord } from '@each-bolt/core/record';
import { addedUp, rollUpAfterEdit, totalsAt, type Own, type RollUp } from '@each-bolt/core/bench';
import { STUDY_LAYOUT, studyRollUp } from '@each-bolt/core/cost';
import { atLeast, atMost, medianMs, type Result } from './harness';
import { referenceStudy } from './reference-study';

const PARTS = 50_000;

/**
 * One measure, mass, of the same tree in a spreadsheet: a row for each node, its total the quantity times its own mass and
 * the totals of its children. One cell scales all masses, so that setting it makes the engine work every formula out again
 * without reading or parsing anything: the kindest way to measure it.
 */
const spreadsheetMs = (record: StudyRecord, rolled: RollUp): { readonly ms: number; readonly total: number } => {
  const { nodes } = rolled.outline;
  const parts = new Map(record.parts.map((part) => [part.id, part]));
  const ROW = 2;
  const sum = (children: readonly number[]): string => {
    // children that follow each other become one range, as a person would write it
    const ranges: [number, number][] = [];
    for (const place of children) {
      const last = ranges.at(-1);
      if (last && last[1] + 1 === place) last[1] = place;
      else ranges.push([place, place]);
    }
    return ranges.length === 0 ? '' : `+SUM(${ranges.map(([from, to]) => `C${from + ROW}:C${to + ROW}`).join(',')})`;
  };
  const rows = nodes.map((node, place) => {
    const part = parts.get(node.id);
    const own = node.children.length === 0 ? (part?.massEachKg ?? 0) : 0;
    return [own, part?.quantity ?? 1, `=B${place + ROW}*(A${place + ROW}*$D$1${sum(node.children)})`];
  });
  const sheet = HyperFormula.buildFromArray([[null, null, null, 1], ...rows], { licenseKey: 'gpl-v3', maxRows: PARTS + 100 });
  const cell = { sheet: 0, row: 0, col: 3 };
  let scale = 1;
  const ms = medianMs(() => sheet.setCellContents(cell, [[(scale += 1)]]), 5, 1);
  sheet.setCellContents(cell, [[1]]);
  const total = sheet.getCellValue({ sheet: 0, row: 1, col: 2 });
  sheet.destroy();
  return { ms, total: Number(total) };
};

/** Roll-up of the reference tree: all measures at once, after one edit, and against a spreadsheet engine doing one measure. */
export const rollUpBench = (): readonly Result[] => {
  const record = referenceStudy(PARTS);
  const { rolled } = studyRollUp(record);
  const { outline: tree, first } = rolled;
  const wholeMs = medianMs(() => addedUp(STUDY_LAYOUT, tree, first.own, 'parts'), 21);
  const fromRecordMs = medianMs(() => studyRollUp(record), 9);
  const leaf = tree.nodes.findLastIndex((node) => node.children.length === 0);
  let kg = 1;
  const weighed = (massKg: number): Own => ({
    count: { value: 1, low: 1, high: 1, mean: 1, variance: 0, rank: 0, isOpen: false },
    figures: [{ mass: { value: massKg, variance: 1e-6, rank: 0 }, cost: { value: 1, rank: 0 }, bought: { value: 1 } }],
  });
  const editMs = medianMs(() => rollUpAfterEdit(rolled, leaf, weighed((kg += 0.001))), 201, 20);
  const spreadsheet = spreadsheetMs(record, rolled);
  const ours = totalsAt(rolled, 0)?.mass.value ?? Number.NaN;
  if (!(Math.abs(spreadsheet.total / ours - 1) < 1e-9))
    throw new RangeError(`the spreadsheet gets ${spreadsheet.total} kg, the roll-up ${ours} kg`);
  return [
    atMost(`roll-up of ${PARTS} parts, all measures`, wholeMs, 'ms', 60),
    atMost('  with outline and costs, from the record', fromRecordMs, 'ms', 1000),
    atMost('  after one edit', editMs, 'ms', 0.5),
    atLeast('  against one measure in a spreadsheet engine', spreadsheet.ms / wholeMs, '×', 20),
  ];
};
