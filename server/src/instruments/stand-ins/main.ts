import type { InstrumentKind } from '@each-bolt/core/bench';
import { BENCH_SCALE, FLOOR_SCALE, alloyAnalyser, caliper, camera, meshScanner, scale, torqueDriver, type StandIn } from './device-kinds';
import { serveStandIn } from './serve';

const MAKE: Readonly<Record<InstrumentKind, () => StandIn>> = {
  scale: () => scale(BENCH_SCALE, Math.random),
  'floor scale': () => scale(FLOOR_SCALE, Math.random),
  caliper: () => caliper(Math.random),
  'alloy analyser': () => alloyAnalyser(Math.random),
  'torque driver': () => torqueDriver(Math.random),
  'mesh scanner': meshScanner,
  camera,
};

// one process is one instrument: KIND PORT
const [kind, port] = process.argv.slice(2);
if (kind === undefined || !Object.hasOwn(MAKE, kind)) {
  process.stderr.write(`An instrument is one of: ${Object.keys(MAKE).join(', ')}\n`);
  process.exit(1);
}
serveStandIn(MAKE[kind as InstrumentKind](), Number(port ?? 0)).then(
  (serving) => {
    process.send?.({ listening: serving.port });
    const stop = (): void => void serving.stop().then(() => process.exit(0));
    process.once('SIGINT', stop).once('SIGTERM', stop).once('disconnect', stop);
  },
  (error: unknown) => {
    process.stderr.write(`The stand-in ${kind} could not listen on ${port ?? ''}: ${(error as Error).message}\n`);
    process.exit(1);
  },
);
