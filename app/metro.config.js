const { getDefaultConfig } = require('expo/metro-config');

/** The workspace's own TypeScript packages are found through npm's links; only our faces are a new kind of file. */
const config = getDefaultConfig(__dirname);
config.resolver.assetExts.push('woff2');
module.exports = config;
