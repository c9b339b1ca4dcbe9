import { issue, type Issue } from '../../../shared';

/** Pads nearer to each other than this are one, m. Assumed: a pad is some 100 mm wide. */
const ONE_PAD_M = 0.01;

interface OnPads {
  readonly id: string;
  readonly pads: readonly { readonly xM: number; readonly yM: number }[];
}

/** Two pads typed at one place leave a side of the vehicle without a pad. */
export const padsOnOnePlace = ({ id, pads }: OnPads): readonly Issue[] =>
  pads.some((a, i) => pads.slice(i + 1).some((b) => Math.hypot(a.xM - b.xM, a.yM - b.yM) < ONE_PAD_M))
    ? [issue('pads-on-one-place', 'Two pads stand on one place: one of the two is typed wrong', 'pads', id)]
    : [];
