// Who runs the database of a folder: written down beside it, so that a second start neither shares it nor stops it.
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';

const SETTLE_MS = 60;

/** When a process began, as the system counts it: its number alone may be another’s after a restart. Null where that is not told. */
const beganAt = (pid) => {
  try {
    const stat = readFileSync(`/proc/${pid}/stat`, 'utf8');
    // the name of the program may hold spaces and brackets; the fields are counted from behind it
    return stat.slice(stat.lastIndexOf(')') + 2).split(' ')[19] ?? null;
  } catch {
    return null;
  }
};

const isAlive = ({ pid, began }) => {
  try {
    process.kill(pid, 0);
  } catch (error) {
    if (error.code === 'ESRCH') return false;
  }
  return began === null || beganAt(pid) === began;
};

const read = (file) => {
  try {
    return JSON.parse(readFileSync(file, 'utf8'));
  } catch {
    // half written by one that was killed: nobody’s
    return null;
  }
};

/**
 * Takes a folder for this process.
 * @returns {Promise<{ tell: (address: string) => void, release: () => void }>}
 * @throws Error with the address of whoever has it
 */
export const own = async (root) => {
  const file = join(root, 'owner.json');
  const mine = { pid: process.pid, began: beganAt(process.pid), address: null };
  const isMine = () => read(file)?.pid === process.pid;
  for (;;) {
    const owner = existsSync(file) ? read(file) : null;
    if (owner && owner.pid !== process.pid && isAlive(owner)) {
      const where = owner.address ? `It is ready at ${owner.address}` : 'It is still starting';
      throw new Error(
        `The data in ${root} are in use by a program that runs already (process ${owner.pid}). ${where}; stop it first to start another.`,
      );
    }
    // what a process left that is gone, or never wrote to its end
    rmSync(file, { force: true });
    try {
      writeFileSync(file, JSON.stringify(mine), { flag: 'wx' });
    } catch (error) {
      if (error.code !== 'EEXIST') throw error;
      continue;
    }
    // another that began at the same moment may have taken this for what was left
    await pause(SETTLE_MS);
    if (isMine()) break;
  }
  return {
    tell: (address) => writeFileSync(file, JSON.stringify({ ...mine, address })),
    release: () => {
      if (isMine()) rmSync(file, { force: true });
    },
  };
};
