import fc from 'fast-check';
import { Api, beginStudy } from '../../testing/api';
import { shot, wrongAnswer } from '../../testing/fuzz';
import { testDatabase } from '../../testing/test-database';

/** npm run fuzz sends more of them, with another seed each time. */
const [COUNT, SEED] = [Number(process.env.FUZZ_REQUESTS ?? 500), Number(process.env.FUZZ_SEED ?? 7)];

it(
  'no request to any route is answered 500, or without a sentence',
  async () => {
    const { pool, drop } = await testDatabase();
    let api = await Api.over(pool);
    const study = await beginStudy(api);
    const wrong: string[] = [];
    for (const one of fc.sample(shot(study), { numRuns: COUNT, seed: SEED })) {
      // a request may have signed the person out, or ended the study for them
      const fault = await wrongAnswer(api, one);
      if (fault !== null) wrong.push(fault);
      if ((await api.get('/api/studies')).status === 401) api = await api.again();
    }
    expect((await api.get('/api/health')).status).toBe(200);
    expect((await api.record(study.studyId)).study.id).toBe(study.studyId);
    await api.stop();
    await drop();
    expect(wrong).toEqual([]);
  },
  60_000 + COUNT * 200,
);
