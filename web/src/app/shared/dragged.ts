import type { CdkDragEnd } from '@angular/cdk/drag-drop';
import type { Place } from '@each-bolt/core/bench';
import type { OutlineNode } from '@each-bolt/core/record';

/** A node of the tree as a place that parts can be dropped on; a vehicle is none. */
export const dropText = (node: OutlineNode): string | null =>
  node.kind === 'vehicle' ? null : node.kind === 'part' ? `part ${node.id}` : `subsystem ${node.vehicleId} ${node.id}`;

/** The place that lies under the end of a drag, past what was dragged itself; null where there is none. */
export const droppedOn = ({ dropPoint, source }: CdkDragEnd): Place | null => {
  const own = source.element.nativeElement;
  const row = document
    .elementsFromPoint(dropPoint.x, dropPoint.y)
    .filter((element) => !own.contains(element))
    .map((element) => element.closest<HTMLElement>('[data-place]'))
    .find((element) => element !== null && element !== own);
  const [kind, first = '', second = ''] = row?.dataset.place?.split(' ') ?? [];
  if (kind === 'part') return { kind: 'part', id: first };
  return kind === 'subsystem' ? { kind: 'subsystem', vehicleId: first, subsystemId: second } : null;
};
