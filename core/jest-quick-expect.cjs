// Jest makes all of its matchers anew at each `expect`, and compares bytes by their names: a third of the time of tests
// that ask a hundred thousand times. Here what plainly holds is let pass; all else is Jest's to judge, and to put in words.
// What is let pass is not counted: `expect.assertions` would not know of it.
const { isDeepStrictEqual } = require('node:util');

const ofNumbers = (holds) => (actual, expected) =>
  typeof actual === 'number' && typeof expected === 'number' && holds(actual, expected);

/** What holds for certain: none of these says yes where Jest would say no. */
const HOLDS = {
  toBe: Object.is,
  toEqual: isDeepStrictEqual,
  toBeCloseTo: (actual, expected, digits = 2) =>
    ofNumbers((one, other) => Math.abs(one - other) < 10 ** -digits / 2)(actual, expected),
  toBeUndefined: (actual) => actual === undefined,
  toBeLessThan: ofNumbers((actual, most) => actual < most),
  toBeLessThanOrEqual: ofNumbers((actual, most) => actual <= most),
  toBeGreaterThan: ofNumbers((actual, least) => actual > least),
  toBeGreaterThanOrEqual: ofNumbers((actual, least) => actual >= least),
};

/** As Jest's `expect`, and quicker where what is asked holds. */
function quick(expect) {
  class Asked {
    constructor(actual, ...rest) {
      this.actual = actual;
      this.rest = rest;
    }
  }
  for (const [name, matcher] of Object.entries(expect(undefined))) {
    const jests = ({ actual, rest }) => expect(actual, ...rest)[name];
    const holds = HOLDS[name];
    const get = function () {
      return jests(this);
    };
    if (typeof matcher !== 'function') Object.defineProperty(Asked.prototype, name, { get });
    else
      Asked.prototype[name] = function (...expected) {
        if (holds?.(this.actual, ...expected)) return;
        try {
          return jests(this)(...expected);
        } catch (error) {
          // What is shown of a failure is where the test asked, not this line.
          Error.captureStackTrace(error, Asked.prototype[name]);
          throw error;
        }
      };
  }
  return Object.assign((...asked) => new Asked(...asked), expect);
}

globalThis.expect = quick(globalThis.expect);
