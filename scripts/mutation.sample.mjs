// Leaves out all but a share of the statements, for `npm run mutation` on a large folder.
import { createHash } from 'node:crypto';
import { declareValuePlugin, PluginKind } from '@stryker-mutator/api/plugin';

const share = Number(process.env.MUTATION_SHARE ?? 1);

/** A number from 0 to 1 that stands for a text, the same each time. */
const placeOf = (text) => createHash('sha1').update(text).digest().readUInt32BE(0) / 2 ** 32;

const isStatement = (path) => path.isStatement() && !path.isBlockStatement() && !path.isImportDeclaration();
/** a statement that holds other statements is never left out whole: its condition and what it holds are drawn by themselves */
const holdsOthers = (path) => {
  let found = false;
  path.traverse({
    Statement: (inner) => {
      found ||= !inner.isBlockStatement();
      if (found) inner.stop();
    },
  });
  return found;
};

export const strykerPlugins = [
  declareValuePlugin(PluginKind.Ignore, 'sample', {
    shouldIgnore: (path) => {
      const isLeaf =
        (isStatement(path) && !holdsOthers(path)) ||
        // what an arrow function gives back, and the condition of a statement that holds others
        (path.isExpression() &&
          (path.parentPath?.isArrowFunctionExpression()
            ? path.key === 'body'
            : path.parentPath?.isStatement() && holdsOthers(path.parentPath)));
      if (!isLeaf) return undefined;
      const { start, end } = path.node;
      return placeOf(`${start} ${end} ${path.getSource().slice(0, 80)}`) < share ? undefined : 'not in the sample';
    },
  }),
];
