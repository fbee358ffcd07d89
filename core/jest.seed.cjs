// The same cases each time, so that a run says something about the code. Others: `HOVLIX_SEED=$RANDOM npm test`.
const fc = require('fast-check');

const seed = Number(process.env.HOVLIX_SEED ?? 20261127);
if (!Number.isInteger(seed)) throw new Error(`HOVLIX_SEED must be a whole number, not “${process.env.HOVLIX_SEED}”.`);
fc.configureGlobal({ seed });
