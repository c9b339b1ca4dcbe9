import pg from 'pg';
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
  it('says why the database cannot write just now: recovering, or its disk full', () => {
    const because = (code: string): readonly [number, string] => {
      const problem = toProblem(Object.assign(new Error('x'), { code }));
      return [problem.status, problem.message];
    };
    expect(because('57P03')).toEqual([503, 'The database is starting up or recovering. Nothing was written; try again in a moment']);
    expect(because('25006')).toEqual([503, 'The database is recovering and only read. Nothing was written; try again in a moment']);
    expect(because('53100')).toEqual([503, 'The disk of the server is full. Nothing was written; try again in a moment']);
  });
  it('is a refusal, not a failure, when a value breaks a rule that only the database knows', () => {
    const broken = (code: string, more: object = {}) => toProblem(Object.assign(new pg.DatabaseError('x', 1, 'error'), { code, ...more }));
    const check = broken('23514', { table: 'fastener_set', constraint: 'fastener_set_count_check' });
    expect([check.status, check.code, check.issues[0]?.message]).toEqual([
      422,
      'invalid',
      'A value breaks a rule of the database (fastener set): change it or leave it out',
    ]);
    expect(broken('22003').status).toBe(422);
    expect(broken('23503', { table: 'part', column: 'parent_id' }).issues[0]?.message).toContain('(part, parent id)');
    // a statement that is wrong is the program’s fault
    expect(broken('42601').status).toBe(500);
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
