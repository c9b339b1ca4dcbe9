import { connect, createServer, type AddressInfo, type Socket } from 'node:net';

/** A network between a server and its database: it can swallow everything on the connections there are, and say nothing. */
export interface Network {
  /** the connection string that goes through it */
  readonly url: string;
  /** from now on nothing passes on the connections there are; new ones pass */
  readonly swallow: () => void;
  readonly stop: () => Promise<void>;
}

export const networkTo = async (databaseUrl: string): Promise<Network> => {
  const to = new URL(databaseUrl);
  const open = new Set<Socket>();
  const server = createServer((near) => {
    const far = connect(Number(to.port || 5432), to.hostname);
    for (const socket of [near, far]) {
      open.add(socket);
      socket.on('close', () => open.delete(socket));
      socket.on('error', () => {
        near.destroy();
        far.destroy();
      });
    }
    near.pipe(far);
    far.pipe(near);
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  const through = new URL(databaseUrl);
  through.hostname = '127.0.0.1';
  through.port = String((server.address() as AddressInfo).port);
  return {
    url: through.href,
    swallow: () => {
      for (const socket of open) socket.unpipe().pause();
    },
    stop: async () => {
      for (const socket of open) socket.destroy();
      await new Promise((done) => server.close(done));
    },
  };
};
