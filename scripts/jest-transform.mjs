/**
 * The transformer of Jest: swc, and names of the language held by each module for itself. Jest runs a module in a context of its
 * own, where every mention of `Math` or `Object` asks the context anew; hot numeric code takes a third longer by that.
 */
import swcJest from '@swc/jest';

const NAMES =
  'Array Float32Array Float64Array Infinity Int32Array Map Math NaN Number Object Set Uint32Array Uint8Array WeakMap'.split(
    ' ',
  );

/** On the first line, so that the lines of what follows stay what they are. A name that the module declares itself is left to it. */
function holdNames(code) {
  const used = NAMES.filter(
    (name) =>
      new RegExp(`\\b${name}\\b`).test(code) &&
      !new RegExp(`\\b(?:const|let|var|class|function|as)\\s+${name}\\b|[{,]\\s*${name}\\s*[,}]`).test(code),
  );
  return used.length > 0 ? `const { ${used.join(', ')} } = globalThis; ${code}` : code;
}

const holdNamesOf = ({ code, ...rest }) => ({ ...rest, code: holdNames(code) });

export default {
  createTransformer(options) {
    // Without options: a module that needs no compiling.
    if (!options || Object.keys(options).length === 0)
      return { process: (source) => ({ code: holdNames(source) }) };
    const swc = swcJest.createTransformer(options);
    return {
      ...swc,
      process: (...file) => holdNamesOf(swc.process(...file)),
      processAsync: async (...file) => holdNamesOf(await swc.processAsync(...file)),
      getCacheKey: (...file) => `${swc.getCacheKey(...file)}-${NAMES.join('-')}`,
    };
  },
};
