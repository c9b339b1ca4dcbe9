import type { Response } from 'express';

/**
 * Whether whoever asked is gone. An answer that stands behind another on the same connection is told nothing when that ends before its turn
 * has come: its connection is.
 */
export const isGone = ({ destroyed, req }: Response): boolean => destroyed || req.socket.destroyed;

/** Does something once, when an answer has been taken or whoever asked for it is gone; at once where they are gone already. */
export const whenOver = (response: Response, act: () => void): void => {
  if (isGone(response)) {
    act();
    return;
  }
  const { socket } = response.req;
  let isOver = false;
  // both may tell in one go: taking the other’s listener off comes too late then
  const over = (): void => {
    if (isOver) return;
    isOver = true;
    response.off('close', over);
    socket.off('close', over);
    act();
  };
  response.once('close', over);
  socket.once('close', over);
};
