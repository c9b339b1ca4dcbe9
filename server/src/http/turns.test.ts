import { Turns, type Lane } from './turns';

/** Work that takes as long as it is told to, by a clock of its own. */
class Scene {
  readonly turns = new Turns();
  readonly begun: string[] = [];

  /** Asks for work of so many milliseconds. */
  async ask(who: string, lane: Lane, ms: number, name: string): Promise<void> {
    await this.turns.of(who, lane, async () => {
      this.begun.push(name);
      await new Promise((done) => setTimeout(done, ms));
    });
  }
}

describe('what takes the server long', () => {
  let scene: Scene;
  const after = (ms: number): Promise<void> => jest.advanceTimersByTimeAsync(ms);
  const ask = (who: string, lane: Lane, ms: number, name: string): void => void scene.ask(who, lane, ms, name);
  /** Others ask for this and that all the time. */
  const beside = (who: string): void => {
    const seeing = setInterval(() => scene.turns.see(who), 500);
    over.push(() => clearInterval(seeing));
  };
  const over: (() => void)[] = [];
  beforeEach(() => {
    jest.useFakeTimers();
    scene = new Scene();
  });
  afterEach(() => {
    for (const end of over.splice(0)) end();
    jest.useRealTimers();
  });

  it('is done for one person one after the other, a thread of theirs beside it, and others beside both', async () => {
    ask('wenna', 'read', 400, 'record');
    ask('wenna', 'read', 400, 'history');
    ask('wenna', 'aside', 400, 'import');
    ask('odo', 'read', 400, 'record of Odo');
    await after(0);
    expect(scene.begun).toEqual(['record', 'import', 'record of Odo']);
    await after(400);
    expect(scene.begun.at(-1)).toBe('history');
  });
  it('of who has had more than 3 s of the last while is done one at a time, after pauses of up to 2 s, while others are there', async () => {
    beside('odo');
    ask('wenna', 'aside', 8000, 'import');
    await after(8000);
    ask('wenna', 'read', 500, 'record');
    ask('wenna', 'aside', 500, 'archive');
    await after(1990);
    expect(scene.begun).toEqual(['import']);
    await after(20);
    expect(scene.begun).toEqual(['import', 'record']);
    // half a second of work, half a second of rest
    await after(980);
    expect(scene.begun).toHaveLength(2);
    await after(30);
    expect(scene.begun).toEqual(['import', 'record', 'archive']);
  });
  it('leaves others their full speed however much one asks for: at most half of one thread is theirs', async () => {
    beside('odo');
    const rounds = async (who: string): Promise<void> => {
      for (;;) await scene.ask(who, 'read', 1000, who);
    };
    void rounds('lisk');
    await after(60_000);
    const had = scene.begun.length;
    await after(60_000);
    expect(scene.begun.length - had).toBeGreaterThan(25);
    expect(scene.begun.length - had).toBeLessThanOrEqual(31);
    ask('odo', 'read', 100, 'odo');
    await after(0);
    expect(scene.begun.at(-1)).toBe('odo');
  });
  it('is forgotten with time: whoever did much a minute ago has both again at once', async () => {
    ask('wenna', 'aside', 15_000, 'import');
    beside('odo');
    await after(75_000);
    ask('wenna', 'read', 400, 'record');
    ask('wenna', 'aside', 400, 'archive');
    await after(0);
    expect(scene.begun).toEqual(['import', 'record', 'archive']);
  });
  it('keeps nobody waiting who is there alone', async () => {
    scene.turns.see('odo');
    ask('wenna', 'aside', 8000, 'import');
    await after(8000);
    ask('wenna', 'read', 400, 'record');
    ask('wenna', 'aside', 400, 'archive');
    await after(0);
    expect(scene.begun).toEqual(['import', 'record', 'archive']);
  });
  it('goes on after work that failed', async () => {
    const failed = scene.turns.of('pell', 'read', () => Promise.reject(new Error('gone')));
    await expect(failed).rejects.toThrow('gone');
    ask('pell', 'read', 1, 'record');
    await after(0);
    expect(scene.begun).toEqual(['record']);
  });
  it('is refused in words to whoever has far more waiting than can be done', async () => {
    for (let i = 0; i < 61; i++) ask('pell', 'read', 1, `${i}`);
    await after(0);
    await expect(scene.turns.take('pell', 'read')).rejects.toThrow('wait for what you asked for');
  });
});
