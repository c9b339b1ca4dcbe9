import { ENTITIES, type Entity } from '@each-bolt/core/record';
import { tableStore } from './table';
import type { Store } from './store';

/** The store of every kind of record. */
export const STORES = Object.fromEntries(ENTITIES.map((entity) => [entity, tableStore(entity)])) as unknown as {
  readonly [E in Entity]: Store<E>;
};
