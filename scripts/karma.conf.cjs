process.env.CHROME_BIN ??= '/usr/bin/chromium';

module.exports = (config) =>
  config.set({
    frameworks: ['jasmine'],
    plugins: [require('karma-jasmine'), require('karma-chrome-launcher')],
    reporters: ['progress'],
    browsers: ['Chromium'],
    customLaunchers: {
      Chromium: {
        base: 'ChromeHeadless',
        flags: [
          '--no-sandbox',
          '--disable-gpu',
          '--disable-dev-shm-usage',
          '--disable-background-networking',
        ],
      },
    },
    hostname: '127.0.0.1',
    listenAddress: '127.0.0.1',
    singleRun: true,
    // A property over every arrangement keeps the page busy for seconds; a slow machine makes that many.
    pingTimeout: 180_000,
    browserDisconnectTimeout: 180_000,
    browserNoActivityTimeout: 400_000,
    client: { jasmine: { random: true } },
  });
