// Stands in for parts of libraries that this app has no use for: see metro.config.js.
module.exports = {};
