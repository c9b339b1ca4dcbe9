import type { Part } from '../../record';
import { readTag, tagText } from '../../bench';
import { type Check, type Finding, type Suspect, NOTHING } from '../finding';
import type { Ground } from '../ground';
import { editOp, nameOf, ofPart, toLookAt } from '../said';

const wrongTag = (part: Part, says: string, fit: number, tag: string | null = null): Suspect => ({
  ...{ key: `${part.id} tag`, rule: 'wrong tag', says, short: 'wrong tag', fit },
  mend: tag === null ? null : { field: 'Tag', from: part.tag, to: tag, ops: [editOp('part', part, 'tag', tag)] },
});

const say = (ground: Ground, part: Part, title: string, says: string, suspects: readonly Suspect[]): Finding =>
  ofPart('tags', part, 'tag', { title, says: `${nameOf(ground, part)}: ${says}`, suspects });

const tagCheck = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.tag.trim() === '') return NOTHING;
  const twin = ground.tagged.at(part.tag.trim().toUpperCase()).find((other) => other.id < part.id);
  const doubled = twin
    ? [say(ground, part, `Tag ${part.tag}, twice`, `tag ${part.tag} lies on ${twin.name} too`, [wrongTag(part, `Tag ${part.tag} lies on two parts: ${part.name} and ${twin.name}`, 0.8)])]
    : NOTHING;
  const read = readTag(part.tag);
  if (read.kind === 'other') return doubled;
  if (read.kind === 'misread') {
    const right = tagText(read.tag);
    const isFree = ground.sheetOf(read.tag) !== null && ground.tagged.at(right).length === 0;
    return [
      ...doubled,
      say(ground, part, `Tag ${part.tag}`, `tag ${part.tag} was misread or mistyped; its check character would be ${read.expected}`, [
        wrongTag(part, `Tag of ${part.name} was misread`, 0.9, isFree ? right : null),
      ]),
    ];
  }
  const sheet = ground.sheetOf(read.tag);
  if (!sheet) return [...doubled, say(ground, part, `Tag ${part.tag}`, `tag ${part.tag} was never printed for this study`, [wrongTag(part, `Tag of ${part.name} is of another study`, 0.8)])];
  if (sheet.vehicleId !== part.vehicleId)
    return [...doubled, say(ground, part, `Tag ${part.tag}`, `tag ${part.tag} was printed for ${ground.vehicleName(sheet.vehicleId)}`, [wrongTag(part, `Tag of ${part.name} belongs on ${ground.vehicleName(sheet.vehicleId)}`, 0.9)])];
  const subsystemId = ground.subsystemOf(part);
  if (sheet.subsystemId !== null && subsystemId !== null && sheet.subsystemId !== subsystemId) {
    const name = ground.record.subsystems.find((one) => one.id === sheet.subsystemId)?.name ?? 'another subsystem';
    return [...doubled, say(ground, part, `Tag ${part.tag}`, `tag ${part.tag} was printed for ${name}`, [wrongTag(part, `Tag of ${part.name} belongs in ${name}`, 0.8)])];
  }
  return doubled;
}; // prettier-ignore

/** Where so large a share of the parts beside it have a tag, one without is missed. Assumed. */
const TAGGED_SHARE = 0.7;

const untagged = (ground: Ground, part: Part): readonly Finding[] => {
  if (part.tag.trim() !== '') return NOTHING;
  const beside = ground.besideOf(part);
  const tagged = beside.filter((other) => other.tag.trim() !== '').length;
  if (beside.length < 4 || tagged < TAGGED_SHARE * (beside.length - 1)) return NOTHING;
  return [
    ofPart('no-tag', part, 'tag', {
      title: `Tag of ${part.name}`,
      says: `${nameOf(ground, part)} has no tag, and ${tagged} of ${beside.length - 1} parts beside it have one`,
      suspects: [
        toLookAt(
          `${part.vehicleId} tags missing`,
          'not recorded',
          `Parts of ${ground.vehicleName(part.vehicleId)} have no tag where those beside them have one`,
          'tags missing',
          0.6,
        ),
      ],
    }),
  ];
};

/** Checks of tags. */
export const TAG_CHECKS: readonly Check[] = [
  {
    ...{ id: 'tags', name: 'Wrong and doubled tags', severity: 'wrong', blocks: 'cost', ofPart: tagCheck },
    ...{ asks: 'Does every tag lie on the one part it was printed for?', needs: 'tags, and the sheets they were printed on' },
  },
  {
    ...{ id: 'no-tag', name: 'Missing tags', severity: 'missing', blocks: 'report', ofPart: untagged },
    ...{ asks: 'Has every part a tag where the parts beside it have one?', needs: 'tags beside it' },
  },
];
