import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import type { StandIn } from './device-kinds';
import { ScpiDevice } from './scpi-device';

const TICK_MS = 100;
const MOST_LINE = 4096;

export interface Serving {
  readonly port: number;
  readonly stop: () => Promise<void>;
}

/**
 * Serves one instrument as lines of text over TCP: a line in is a message, a line out an answer or, once
 * `INIT:CONT ON` was said on a connection, a reading.
 */
export const serveStandIn = async (standIn: StandIn, port: number, host = '127.0.0.1'): Promise<Serving> => {
  const device = new ScpiDevice(standIn);
  const sockets = new Map<Socket, { following: boolean }>();
  const server: Server = createServer((socket) => {
    sockets.set(socket, { following: false });
    let text = '';
    socket.setEncoding('latin1');
    socket.on('data', (part: string) => {
      text += part;
      for (let end = text.indexOf('\n'); end >= 0; end = text.indexOf('\n')) {
        const line = text.slice(0, end).trim();
        text = text.slice(end + 1);
        const following = /^INIT:CONT\s+(ON|OFF|1|0)$/i.exec(line);
        if (following) sockets.set(socket, { following: /^(ON|1)$/i.test(following[1] ?? '') });
        else
          for (const reply of device.message(line))
            socket.write(typeof reply === 'string' ? `${reply}\n` : Buffer.concat([reply, Buffer.from('\n')]));
      }
      if (text.length > MOST_LINE) text = '';
    });
    socket.on('close', () => sockets.delete(socket));
    socket.on('error', () => socket.destroy());
  });
  await new Promise<void>((ready, fail) => server.once('error', fail).listen(port, host, ready));
  const timer = setInterval(() => {
    const line = standIn.tick(Date.now());
    if (line !== null) for (const [socket, { following }] of sockets) if (following) socket.write(`${line}\n`);
  }, TICK_MS);
  return {
    port: (server.address() as AddressInfo).port,
    stop: async () => {
      clearInterval(timer);
      for (const socket of sockets.keys()) socket.destroy();
      await new Promise((done) => server.close(done));
    },
  };
};
