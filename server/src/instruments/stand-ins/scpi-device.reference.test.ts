import { ScpiDevice, block, type DeviceParts } from './scpi-device';
import { BENCH_SCALE, scale } from './device-kinds';

/** Numbers and rules of IEEE 488.2-1992 and SCPI-99, from memory. */
const device = (parts: Partial<DeviceParts> = {}): ScpiDevice =>
  new ScpiDevice({ identity: ['Maker', 'Model 1', 'S-1', '1.0'], answer: () => undefined, reset: () => undefined, ...parts });
const ask = (of: ScpiDevice, message: string): string => of.message(message).join('|');

describe('an instrument of IEEE 488.2', () => {
  it('says who it is in four fields: maker, model, serial number, version', () =>
    expect(ask(device(), '*IDN?')).toBe('Maker,Model 1,S-1,1.0'));
  it('begins with power-on (128) in the event register, which reading clears', () => {
    const one = device();
    expect([ask(one, '*ESR?'), ask(one, '*ESR?')]).toEqual(['128', '0']);
  });
  it('answers nothing to a command it does not know, and queues −113 with the command error bit (32)', () => {
    const one = device();
    ask(one, '*CLS');
    expect(ask(one, 'NONSENSE')).toBe('');
    expect(ask(one, '*STB?')).toBe('4');
    expect(ask(one, 'SYST:ERR?')).toBe('-113,"Undefined header"');
    expect(ask(one, 'SYST:ERR?')).toBe('0,"No error"');
    expect(ask(one, '*ESR?')).toBe('32');
  });
  it('gives errors back in the order they came, and says −350 in the last place when there were too many', () => {
    const one = device();
    for (let i = 0; i < 14; i++) ask(one, 'NONSENSE');
    expect(ask(one, 'SYST:ERR:COUN?')).toBe('10');
    const errors = Array.from({ length: 11 }, () => ask(one, 'SYST:ERR?').split(',')[0]);
    expect(errors).toEqual([...Array<string>(9).fill('-113'), '-350', '0']);
  });
  it('clears errors and events with *CLS', () => {
    const one = device();
    ask(one, 'NONSENSE');
    ask(one, '*CLS');
    expect([ask(one, 'SYST:ERR?'), ask(one, '*ESR?')]).toEqual(['0,"No error"', '0']);
  });
  it('answers several units of one message in their order, and sets the summary bit (32) of what is enabled', () => {
    const one = device();
    expect(ask(one, '*CLS; *OPC?; *IDN?')).toBe('1|Maker,Model 1,S-1,1.0');
    ask(one, '*ESE 32; NONSENSE');
    expect([ask(one, '*ESE?'), ask(one, '*STB?')]).toEqual(['32', '36']);
  });
  it('queues what is out of range or missing as such', () => {
    const one = device();
    ask(one, '*ESE 300');
    ask(one, '*ESE');
    expect([ask(one, 'SYST:ERR?'), ask(one, 'SYST:ERR?')]).toEqual(['-222,"Data out of range"', '-109,"Missing parameter"']);
  });
  it('sends bytes as a definite-length block: #, how many digits, how many bytes', () =>
    expect(block(Buffer.from('hello world!')).toString()).toBe('#212hello world!'));
});

describe('the stand-in of a scale', () => {
  const still = (kg: number) => {
    const one = scale(BENCH_SCALE, () => 0.25);
    const of = new ScpiDevice(one);
    ask(of, `SIM:LOAD ${kg}`);
    const lines = Array.from({ length: 80 }, (_, i) => one.tick(i * 100) ?? '');
    return { of, one, lines };
  };
  it('settles from moving to still', () => {
    const { lines } = still(0.1874);
    expect(lines[2]).toMatch(/,UNST$/);
    expect(lines.at(-1)).toMatch(/^READ 80,MASS,1\.87[0-9]+e-1,KG,[0-9.]+e-4,0\.0+e\+0,STAB$/);
  });
  it('shows nothing but that it is overloaded when it is', () => expect(still(18.4).lines.at(-1)).toMatch(/^READ 80,MASS,,KG,.*,OVER$/));
  it('takes the tare off what it reads, and refuses to while it moves', () => {
    const { of, one } = still(0.5);
    ask(of, 'TARE');
    expect(ask(of, 'SYST:ERR?')).toBe('0,"No error"');
    expect(Number(one.tick(8100)?.split(',')[2])).toBeCloseTo(0, 3);
    ask(of, 'SIM:LOAD 1');
    ask(of, 'TARE');
    expect(ask(of, 'SYST:ERR?')).toBe('-221,"Settings conflict"');
  });
});
