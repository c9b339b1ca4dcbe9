// Starts the built server as a child process and waits until it listens.
import { fork } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './build.mjs';

/**
 * @param env settings of the server
 * @param {AbortSignal} [givenUp] ends a server that is still starting
 * @returns {Promise<{ port: number, pid: number, ended: Promise<number | null>, stop: () => Promise<void> }>}
 */
export const startServer = (env, givenUp) =>
  new Promise((done, fail) => {
    // a process group of its own, so that Ctrl-C is handled here and in order
    const child = fork(join(ROOT, 'server/dist/main.js'), [], {
      cwd: ROOT,
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      detached: true,
    });
    const ended = new Promise((over) => child.once('exit', over));
    const giveUp = () => child.kill('SIGTERM');
    givenUp?.addEventListener('abort', giveUp);
    const failed = () => fail(new Error('The server did not start; its message stands above'));
    child.once('exit', failed);
    child.once('message', ({ listening }) => {
      child.off('exit', failed);
      givenUp?.removeEventListener('abort', giveUp);
      const stop = async () => {
        if (child.exitCode === null) child.kill('SIGTERM');
        await ended;
      };
      done({ port: listening, pid: child.pid, ended, stop });
    });
  });
