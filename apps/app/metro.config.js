const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');
const { withNativeWind } = require('nativewind/metro');

const config = getDefaultConfig(__dirname);
config.maxWorkers = 2;
config.server = { ...config.server, enhanceMiddleware: require('./metro.dev-proxy') };
const upstream = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  // zod re-exports its messages in every language; the app speaks English only.
  if (name.endsWith('/locales/index.js') && /[\\/]zod[\\/]/.test(context.originModulePath))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'metro.zod-locales.js') };
  return (upstream ?? context.resolveRequest)(context, name, platform);
};
module.exports = withNativeWind(config, { input: './global.css', inlineRem: 16 });
