const { getDefaultConfig } = require('expo/metro-config');

/** The workspace's own TypeScript packages are found through npm's links; nothing else is needed. */
module.exports = getDefaultConfig(__dirname);
