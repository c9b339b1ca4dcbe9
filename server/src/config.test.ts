import { readConfig } from './config';

const URL = 'postgresql://u:p@127.0.0.1:5432/x';

describe('settings', () => {
  it('have defaults that stay on this machine', () =>
    expect(readConfig({ DATABASE_URL: URL })).toMatchObject({ port: 4600, host: '127.0.0.1' }));
  it.each(['abc', '-1', '70000', '4600.5'])('refuse PORT=%s and say what is allowed', (PORT) => {
    expect(() => readConfig({ DATABASE_URL: URL, PORT })).toThrow(/PORT must be a whole number from 0 to 65535/);
  });
  it.each([undefined, '', 'mysql://x'])('refuse DATABASE_URL=%s', (DATABASE_URL) => {
    expect(() => readConfig({ DATABASE_URL })).toThrow(/DATABASE_URL must say where PostgreSQL is/);
  });
});
