import { Problem, toProblem } from './problem';

const status = (error: unknown): readonly [number, string] => {
  const problem = toProblem(error);
  return [problem.status, problem.body.code];
};

describe('what a client is told when something fails', () => {
  it('is what was meant for it, when that was said', () => {
    const problem = new Problem('conflict', 'Someone changed this', [], [{ id: 'x' }]);
    expect(toProblem(problem).body).toEqual({ code: 'conflict', message: 'Someone changed this', issues: [], conflicts: [{ id: 'x' }] });
  });
  it('names a database that is down or going down as such, so that the client tries again', () => {
    expect(status(Object.assign(new Error('connect ECONNREFUSED'), { code: 'ECONNREFUSED' }))).toEqual([503, 'unavailable']);
    expect(status(Object.assign(new Error('terminating connection'), { code: '57P01' }))).toEqual([503, 'unavailable']);
    expect(status(new Error('Connection terminated unexpectedly'))).toEqual([503, 'unavailable']);
  });
  it('never carries the cause of a failure inside', () => {
    const problem = toProblem(new Error('password authentication failed for user "eachbolt"'));
    expect([problem.status, problem.message]).toEqual([
      500,
      'Something failed on the server. Nothing was written; it is in the server’s log',
    ]);
  });
  it('tells malformed, too large and missing apart', () => {
    const parser = (type: string, code: number) => Object.assign(new Error(type), { expose: true, status: code, type });
    expect(status(parser('entity.parse.failed', 400))).toEqual([400, 'malformed']);
    expect(status(parser('entity.too.large', 413))).toEqual([413, 'too-large']);
    expect(status(parser('charset.unsupported', 415))).toEqual([400, 'malformed']);
    expect(status(Object.assign(new Error('ENOENT'), { expose: false, status: 404 }))).toEqual([404, 'not-found']);
  });
});
