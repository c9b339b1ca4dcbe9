import { issue, type Issue } from '../../../shared';
import { flag, text } from '../field';

/** What is worked out of a record may be asked “what if”: a state beside the one that is recorded, with author and reason. */
export const STATE = {
  name: text('Name', 100, { needed: true, unsaid: true }),
  isWhatIf: flag('State', { words: ['what if', 'as recorded'] }),
  author: text('Author', 100),
  reason: text('Reason', 400),
} as const;

export const stateFaults = (row: { readonly id: string; readonly isWhatIf: boolean; readonly reason: string }): readonly Issue[] =>
  row.isWhatIf && row.reason.trim() === '' ? [issue('no-reason', 'A what-if needs its reason: what would it tell?', 'reason', row.id)] : [];
