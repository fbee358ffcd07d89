// Before all tests.
module.exports = require('./jest-bundle.cjs').makeAll;
