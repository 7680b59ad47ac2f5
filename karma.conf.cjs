// Component tests run in Debian's Chromium, without a window.
const { chromiumHere } = require('./scripts/browser.cjs');

process.env.CHROME_BIN = chromiumHere();

module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    customLaunchers: {
      Chromium: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--autoplay-policy=no-user-gesture-required',
          '--disable-gpu',
          '--disable-background-networking',
          '--no-first-run',
        ],
      },
    },
    browsers: ['Chromium'],
    reporters: ['progress'],
    // long, for a busy machine; what waits for something gives up earlier, and says for what
    client: { jasmine: { timeoutInterval: 120_000 } },
    restartOnFileChange: false,
    // a busy machine may hold a browser up for a while without anything being wrong
    pingTimeout: 60_000,
    browserDisconnectTimeout: 60_000,
    browserNoActivityTimeout: 180_000,
  });
