// What the unit tests take for granted, where another runner than theirs loads them: `expect`, and tests with a table.
const { expect } = require('expect');
const { bind } = require('jest-each');

globalThis.expect = expect;
/** Gives a function of the runner its tables once the runner has set it. */
const withTables = (name) => {
  let own;
  Object.defineProperty(globalThis, name, {
    configurable: true,
    get: () => own,
    set: (given) => {
      own = given;
      if (typeof given === 'function' && !given.each) given.each = bind(given);
    },
  });
};
for (const name of ['it', 'describe', 'test']) withTables(name);
