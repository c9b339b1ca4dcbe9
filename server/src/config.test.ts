import { readConfig } from './config';

const URL = 'postgresql://u:p@127.0.0.1:5432/x';

describe('settings', () => {
  it('have defaults that stay on this machine', () =>
    expect(readConfig({ DATABASE_URL: URL })).toMatchObject({ port: 4600, host: '127.0.0.1' }));
  it.each(['abc', '-1', '70000', '4600.5'])('refuse PORT=%s and say what is allowed', (PORT) => {
    expect(() => readConfig({ DATABASE_URL: URL, PORT })).toThrow(/PORT must be a whole number from 0 to 65535/);
  });
  it.each(['0', '10', 'anything', '10.0.0.0/33', '10.0.0.1, nowhere'])('refuse TRUST_PROXY=%s and say what is allowed', (TRUST_PROXY) => {
    expect(() => readConfig({ DATABASE_URL: URL, TRUST_PROXY })).toThrow(/how many proxies stand in front/);
  });
  it('take proxies by number or by address', () =>
    expect(['1', 'loopback, 10.0.0.0/24', '::1'].map((TRUST_PROXY) => readConfig({ DATABASE_URL: URL, TRUST_PROXY }).trustProxy)).toEqual([
      1,
      ['loopback', '10.0.0.0/24'],
      ['::1'],
    ]));
  it.each(['bolts', 'ftp://bolts.example', 'https://bolts.example/app'])('refuse PUBLIC_URL=%s', (PUBLIC_URL) => {
    expect(() => readConfig({ DATABASE_URL: URL, PUBLIC_URL, TRUST_PROXY: '1' })).toThrow(/the address people type/);
  });
  it('refuse a public address of https when no proxy is trusted to speak it', () => {
    expect(() => readConfig({ DATABASE_URL: URL, PUBLIC_URL: 'https://bolts.example' })).toThrow(/TRUST_PROXY must say which/);
  });
  it.each([undefined, '', 'mysql://x'])('refuse DATABASE_URL=%s', (DATABASE_URL) => {
    expect(() => readConfig({ DATABASE_URL })).toThrow(/DATABASE_URL must say where PostgreSQL is/);
  });
});
