import { randomUUID } from 'node:crypto';
import { createServer, type AddressInfo, type Server, type Socket } from 'node:net';
import type { InstrumentNow } from '@each-bolt/core/bench';
import { editOp } from '@each-bolt/core/record';
import { Api, beginStudy, listen, type Problem } from '../../testing/api';
import { testDatabase } from '../../testing/test-database';
import { InstrumentDriver } from './driver';
import { Reachable, USUAL_RANGES } from './reachable';
import { readReading } from './read-line';
import type { InstrumentRow } from './queries';
import { BENCH_SCALE, camera, scale } from './stand-ins/device-kinds';
import { serveStandIn, type Serving } from './stand-ins/serve';

const row = (port: number, more: Partial<InstrumentRow> = {}): InstrumentRow => ({
  ...{ id: randomUUID(), name: 'Bench scale', kind: 'scale', host: '127.0.0.1', port, simulated: true },
  ...more,
});

const NEAR = new Reachable(USUAL_RANGES);

/** Waits until something holds; a test that waits in vain fails by its own time limit. */
const until = async (holds: () => boolean): Promise<void> => {
  while (!holds()) await new Promise((again) => setTimeout(again, 20));
};

/** A device that says what it is told to, however wrong. */
const odd = async (speak: (socket: Socket, line: string) => void): Promise<{ readonly server: Server; readonly port: number }> => {
  const server = createServer((socket) => {
    socket.on('error', () => socket.destroy());
    socket.on('data', (data: Buffer) => {
      for (const line of data.toString('latin1').split('\n')) if (line.trim() !== '') speak(socket, line.trim());
    });
  });
  await new Promise<void>((ready) => server.listen(0, '127.0.0.1', ready));
  return { server, port: (server.address() as AddressInfo).port };
};
const manners = (socket: Socket, line: string, serial = 'S-1'): void => {
  if (line === '*IDN?') socket.write(`Maker,Model,${serial},1\n`);
  if (line === 'SENS:MASS:MAX?') socket.write('6\n');
  if (line === 'SYST:ERR?') socket.write('0,"No error"\n');
};

describe('an instrument that behaves', () => {
  let serving: Serving;
  let driver: InstrumentDriver;
  let told: InstrumentNow[];
  beforeEach(async () => {
    serving = await serveStandIn(scale(BENCH_SCALE, Math.random), 0);
    told = [];
    driver = new InstrumentDriver(
      row(serving.port),
      (now) => told.push(now),
      () => null,
      NEAR,
    );
    driver.start();
    await until(() => driver.now().state === 'ready');
  });
  afterEach(async () => {
    driver.stop();
    await serving.stop();
  });

  it('says who it is and how much it reads, and its readings come by themselves', async () => {
    expect(driver.now()).toMatchObject({ serial: 'BP6-0142', most: 6, fault: '' });
    await driver.place('SIM:LOAD 0.1874');
    await until(() => driver.now().last?.stable === true && (driver.now().last?.value ?? 0) > 0.18);
    expect(driver.now().last).toMatchObject({ quantity: 'mass', overload: false, raw: expect.stringMatching(/^READ /) as string });
  });
  it('refuses in its own words', async () => {
    await driver.place('SIM:LOAD 1');
    await expect(driver.command('tare')).rejects.toThrow(/refused: not now; it must stand still/);
    await expect(driver.place('SIM:LOAD -1')).rejects.toThrow(/beyond what it can do/);
  });
  it('that is unplugged during a weighing keeps no reading, and is there again by itself', async () => {
    await driver.place('SIM:LOAD 0.5');
    await until(() => driver.now().last !== null);
    const { port } = serving;
    await serving.stop();
    await until(() => driver.now().state === 'away');
    expect(driver.now()).toMatchObject({ last: null, fault: expect.stringMatching(/closed the connection|ECONN/) as string });
    await expect(driver.command('zero')).rejects.toThrow(/is not there/);
    serving = await serveStandIn(scale(BENCH_SCALE, Math.random), port);
    await until(() => driver.now().state === 'ready');
  });
});

describe('an instrument that does not', () => {
  const drivers: InstrumentDriver[] = [];
  const servers: Server[] = [];
  const start = (port: number, taken: (serial: string) => string | null = () => null): InstrumentDriver => {
    const driver = new InstrumentDriver(row(port), () => undefined, taken, NEAR);
    drivers.push(driver);
    driver.start();
    return driver;
  };
  afterEach(async () => {
    for (const driver of drivers.splice(0)) driver.stop();
    for (const server of servers.splice(0)) await new Promise((closed) => server.close(closed));
  });
  const device = async (speak: (socket: Socket, line: string) => void): Promise<number> => {
    const { server, port } = await odd(speak);
    servers.push(server);
    return port;
  };

  it('sends garbage: nothing of it is a reading, and it is let go', async () => {
    const port = await device((socket, line) => {
      manners(socket, line);
      if (line.startsWith('INIT')) for (let i = 0; i < 30; i++) socket.write(Buffer.from([0xff, 0x00, 0x23, 0x39, 0x52, i, 0x0a]));
    });
    const driver = start(port);
    await until(() => driver.now().state === 'away');
    expect(driver.now()).toMatchObject({ last: null, fault: 'it sends what cannot be understood' });
  });
  it('floods: a thousand readings a second are passed on ten times a second, the latest of them', async () => {
    const seen: InstrumentNow[] = [];
    let flooding: NodeJS.Timeout | null = null;
    let sent = 0;
    const port = await device((socket, line) => {
      manners(socket, line);
      if (!line.startsWith('INIT')) return;
      flooding = setInterval(() => {
        for (let i = 0; i < 20; i++) socket.write(`READ ${++sent},MASS,1.0e-1,KG,1e-4,0,STAB\n`);
      }, 20);
      socket.on('close', () => flooding && clearInterval(flooding));
    });
    const driver = new InstrumentDriver(
      row(port),
      (now) => seen.push(now),
      () => null,
      NEAR,
    );
    drivers.push(driver);
    driver.start();
    await until(() => sent >= 1000);
    expect(seen.length).toBeLessThan(25);
    expect(driver.now().state).toBe('ready');
    await expect(driver.command('zero')).resolves.toBeUndefined();
    await until(() => (driver.now().last?.seq ?? 0) > 900);
  });
  it('has the serial number of another: it is refused and named', async () => {
    const port = await device((socket, line) => manners(socket, line, 'BP6-0142'));
    const driver = start(port, (serial) => (serial === 'BP6-0142' ? 'Bench scale' : null));
    await until(() => driver.now().state === 'refused');
    expect(driver.now().fault).toMatch(/same serial number as Bench scale \(BP6-0142\)/);
  });
  it('does not say who it is', async () => {
    const port = await device((socket, line) => line === '*IDN?' && socket.write('secret-service 1.0 ready\n'));
    const driver = start(port);
    await until(() => driver.now().state === 'away');
    expect(driver.now()).toMatchObject({
      fault: expect.stringContaining('does not say who it is') as string,
      maker: '',
      model: '',
      serial: '',
    });
    expect(JSON.stringify(driver.now())).not.toContain('secret');
  });
  it('stands outside of the networks that instruments may stand in: it is not connected to, by number or by name', async () => {
    let heard = 0;
    const port = await device(() => (heard += 1));
    for (const host of ['127.0.0.1', 'localhost']) {
      const driver = new InstrumentDriver(row(port, { host, simulated: false }), () => undefined, () => null, new Reachable(['10.0.0.0/8'])); // prettier-ignore
      driver.start();
      await until(() => driver.now().state === 'away');
      expect(driver.now().fault).toMatch(/outside of the networks that instruments may stand in \(10\.0\.0\.0\/8\)/);
      driver.stop();
    }
    expect(heard).toBe(0);
  });
  it('is not there at all', async () => {
    const { server, port } = await odd(() => undefined);
    await new Promise((closed) => server.close(closed));
    const driver = start(port);
    await until(() => driver.now().state === 'away');
    expect(driver.now().fault).toMatch(/ECONNREFUSED/);
  });
});

describe('a line of a reading', () => {
  it('is understood in full', () =>
    expect(readReading('READ 12,MASS,4.12e-2,KG,5.0e-5,0,STAB')).toMatchObject({
      seq: 12,
      value: 0.0412,
      u: 0.00005,
      stable: true,
      overload: false,
    }));
  it.each([
    ['without its unit', 'READ 12,MASS,4.12e-2,,5.0e-5,0,STAB'],
    ['in another unit', 'READ 12,MASS,4.12e-2,G,5.0e-5,0,STAB'],
    ['with a value that is none', 'READ 12,MASS,4.1.2,KG,5.0e-5,0,STAB'],
    ['with an endless value', 'READ 12,MASS,1e999,KG,5.0e-5,0,STAB'],
    ['without uncertainty of its own', 'READ 12,MASS,4.12e-2,KG,0,0,STAB'],
    ['of a quantity nobody knows', 'READ 12,__proto__,1,KG,1,0,STAB'],
    ['cut off', 'READ 12,MASS,4.1'],
    ['with a fraction above one', 'READ 3,ELEM,,,,,STAB,Al=1.2:0.01'],
  ])('%s is no reading', (_, line) => expect(readReading(line)).toBeNull());
});

describe('a camera', () => {
  it('makes a picture when it is triggered, and hands it over whole', async () => {
    const serving = await serveStandIn(camera(), 0);
    const driver = new InstrumentDriver(
      row(serving.port, { kind: 'camera' }),
      () => undefined,
      () => null,
      NEAR,
    );
    driver.start();
    await until(() => driver.now().state === 'ready');
    await expect(driver.file()).rejects.toThrow(/has made nothing yet/);
    await driver.command('trigger');
    await until(() => driver.now().last !== null);
    const file = await driver.file();
    expect([file.subarray(1, 4).toString(), file.length]).toEqual(['PNG', driver.now().last?.value]);
    driver.stop();
    await serving.stop();
  });
});

describe('where instruments may stand', () => {
  it.each([
    ['10.20.30.40', true],
    ['172.31.255.1', true],
    ['172.32.0.1', false],
    ['192.168.1.7', true],
    ['127.0.0.1', true],
    // what clouds keep their secrets at
    ['169.254.169.254', false],
    ['203.0.113.7', false],
    ['fd12::7', true],
    ['2001:db8::7', false],
    ['not an address', false],
  ])('%s: %s', (address, allowed) => expect(NEAR.allows(address)).toBe(allowed));
  it('is checked of every address of a name', async () => expect(await NEAR.addressOf('localhost')).toMatch(/^127\.|^::1$/));
});

describe('the list of the organisation', () => {
  it('is the same at every process, takes no address from elsewhere, and is commanded by whoever records in an open study', async () => {
    const { pool, drop } = await testDatabase();
    const api = await Api.over(pool);
    const other = await listen(pool);
    const study = await beginStudy(api);
    const serving = await serveStandIn(scale(BENCH_SCALE, Math.random), 0);
    const id = randomUUID();
    const form = { id, name: 'Scale by the door', kind: 'scale', host: '127.0.0.1', port: serving.port };
    const far = await api.post<Problem>('/api/instruments', JSON.stringify({ ...form, host: '203.0.113.7' }));
    expect([far.status, far.body.issues[0]?.field]).toEqual([422, 'host']);
    expect((await api.post('/api/instruments', JSON.stringify(form))).status).toBe(201);
    const there = api.at(other.address);
    const stateThere = async (): Promise<string | undefined> =>
      (await there.get<readonly InstrumentNow[]>('/api/instruments')).body.find((instrument) => instrument.id === id)?.state;
    while ((await stateThere()) !== 'ready') await new Promise((again) => setTimeout(again, 20));
    const command = async (who: Api): Promise<number> =>
      (await who.post(`/api/instruments/${id}/commands`, JSON.stringify({ command: 'clear tare' }))).status;
    const reader = await api.as('Pell Oriane');
    await api.invite(study.studyId, reader, 'reader');
    expect([await command(there), await command(reader), await command(await api.as('Nobody'))]).toEqual([200, 403, 403]);
    const { study: row } = await api.record(study.studyId);
    await api.change(study.studyId, [editOp('study', row, { state: 'archived' })]);
    expect(await command(api)).toBe(403);
    await api.raw(`/api/instruments/${id}`, { method: 'DELETE' });
    while ((await stateThere()) !== undefined) await new Promise((again) => setTimeout(again, 20));
    await serving.stop();
    await other.stop();
    await api.stop();
    await drop();
  });
});
