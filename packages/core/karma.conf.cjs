// The core's whole suite again, in Chromium: the same examples, the same properties, the same hashes.
module.exports = (config) =>
  config.set({
    basePath: '../..',
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    files: ['.cache/core-specs.js'],
    reporters: ['dots'],
    ...require('../../scripts/lib/quiet-chromium.cjs'),
    singleRun: true,
  });
