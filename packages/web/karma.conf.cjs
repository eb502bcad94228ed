module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    reporters: ['dots'],
    ...require('../../scripts/lib/quiet-chromium.cjs'),
    restartOnFileChange: false,
  });
