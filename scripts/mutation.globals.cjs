// What the unit tests take for granted, where another runner than theirs loads them: `expect`, tests with a table, and that
// what a group works out before its tests is worked out with each change of the code, though the files are loaded once.
const { expect } = require('expect');
const { bind } = require('jest-each');

globalThis.expect = expect;

/** The change that is tried; undefined while none is. */
const activeChange = () => (globalThis.__stryker__ ?? globalThis.__stryker2__)?.activeMutant;

/** While a group is worked out anew: its tests in order; null while groups are registered. */
let collected = null;

const own = {};
/** An outermost group: its tests run what its body gives when it is worked out with the change that is tried. */
const outermost = (title, body) => {
  let [change, tests] = [Symbol('none'), []];
  const testAt = (place) => {
    const now = activeChange();
    if (now === undefined || now !== change) {
      [change, collected] = [now, []];
      try {
        body();
        tests = collected;
      } finally {
        collected = null;
      }
    }
    return tests[place];
  };
  let count = 0;
  registering = { place: () => count++, testAt };
  try {
    own.describe(title, body);
  } finally {
    registering = null;
  }
};
let registering = null;

const describe = (title, body) => {
  if (collected !== null) body();
  else if (registering !== null) own.describe(title, body);
  else outermost(title, body);
};
const it = (title, run) => {
  if (collected !== null) {
    collected.push(run);
    return;
  }
  if (registering === null) {
    own.it(title, run);
    return;
  }
  const { place, testAt } = registering;
  const at = place();
  own.it(title, () => testAt(at)());
};

/** Stands in for a function of the runner once the runner has set it. */
const standIn = (name, ours) => {
  ours.each = bind(ours);
  Object.defineProperty(globalThis, name, {
    configurable: true,
    get: () => ours,
    set: (given) => {
      own[name] = given;
    },
  });
};
standIn('describe', describe);
standIn('it', it);
standIn('test', (title, run) => it(title, run));
