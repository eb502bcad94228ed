// How the unit tests start Debian's Chromium: no window, no sandbox (CI runs as root), nothing of its own on the network.
module.exports = {
  browsers: ['Quiet'],
  customLaunchers: {
    Quiet: {
      base: 'ChromeHeadless',
      flags: ['--no-sandbox', '--disable-gpu', '--disable-background-networking', '--disable-component-update', '--disable-sync'],
    },
  },
};
