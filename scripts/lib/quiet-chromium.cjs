// How the unit tests start Debian's Chromium: no window, no sandbox (CI runs as root), nothing of its own on the network. A test
// that computes for long answers no pings meanwhile, and a busy machine is slow to start a browser: neither is a browser that is lost.
const { LONGEST_MS } = require('./patience.cjs');

module.exports = {
  browsers: ['Quiet'],
  customLaunchers: {
    Quiet: {
      base: 'ChromeHeadless',
      flags: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
  client: { jasmine: { random: true, timeoutInterval: LONGEST_MS } },
  pingTimeout: LONGEST_MS,
  browserNoActivityTimeout: LONGEST_MS,
  browserDisconnectTimeout: LONGEST_MS,
  browserSocketTimeout: LONGEST_MS,
  captureTimeout: LONGEST_MS,
  processKillTimeout: 60_000,
};
