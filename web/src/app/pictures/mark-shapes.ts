import type { PictureMark } from '@each-bolt/core/record';

/** Marks are drawn in a square of this side that is stretched over the picture. */
const SIDE = 1000;
const HEAD = 28;

/** The two barbs of an arrow's head, the same shape whatever the picture's proportions. `aspect` is width over height. */
export const arrowHead = ({ fromX, fromY, toX, toY }: PictureMark, aspect: number): string => {
  const [x, y] = [toX * SIDE, toY * SIDE];
  // in a square of the picture's true proportions the angle is the one people see
  const angle = Math.atan2((toY - fromY) / aspect, toX - fromX);
  const barb = (turn: number): string => {
    const [dx, dy] = [Math.cos(angle + turn) * HEAD, Math.sin(angle + turn) * HEAD];
    return `${(x - dx).toFixed(1)} ${(y - dy * aspect).toFixed(1)}`;
  };
  return `M ${barb(0.45)} L ${x.toFixed(1)} ${y.toFixed(1)} L ${barb(-0.45)}`;
};

/** Radii of a circle that is round on the picture, in the stretched square. */
export const radiusOf = ({ fromX, fromY, toX, toY }: PictureMark, aspect: number): readonly [number, number] => {
  const radius = Math.hypot(toX - fromX, (toY - fromY) / aspect) * SIDE;
  return [radius, radius * aspect];
};
