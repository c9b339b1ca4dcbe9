import type { Part } from '@each-bolt/core/record';
import { issue } from '@each-bolt/core/shared';
import type { RecordRule } from '../db/store';
import { taggedTwice } from './queries';

/** A tag belongs to one part. Parts that share one since before are left alone until somebody changes a tag. */
export const tagRule: RecordRule = async (db, studyId, touched) => {
  const tagged = touched.flatMap(({ entity, before, after }) => {
    const [was, is] = [before, after] as readonly (Part | null)[];
    return entity === 'part' && is && is.tag !== '' && is.tag !== was?.tag ? [is.id] : [];
  });
  if (tagged.length === 0) return [];
  return (await taggedTwice(db, studyId, tagged)).map(({ id, name }) =>
    issue('tag-twice', `The tag ${name} is on that part already: a tag belongs to one part`, 'tag', id),
  );
};
