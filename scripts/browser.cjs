const { existsSync } = require('node:fs');

/** Where a Chromium may be; the first that is there is taken. */
const PLACES = [
  process.env.CHROME_BIN,
  // without any window of its own, which takes a quarter less time for the tests; the script that starts it would leave it running when it is ended
  '/usr/lib/chromium/chromium-headless-shell',
  '/usr/bin/chromium',
  '/usr/bin/chromium-browser',
  '/usr/bin/google-chrome',
];

/** Path of the Chromium of this machine; where there is none, of the one that is missed. */
exports.chromiumHere = () => PLACES.find((path) => path && existsSync(path)) ?? '/usr/bin/chromium';
