const path = require('node:path');
const { getDefaultConfig } = require('expo/metro-config');
const { withNativeWind } = require('nativewind/metro');

const config = getDefaultConfig(__dirname);
config.server = { ...config.server, enhanceMiddleware: require('./metro.dev-proxy') };

const delivered = process.env.NODE_ENV === 'production';
// All modules in one process: two load the same transforms each and hand over what they made, a third more work, and on two cores no sooner done.
config.maxWorkers = delivered ? 1 : 2;
config.transformer.minifierPath = require.resolve('./metro.minify');
// A build for delivery is made from nothing, so that no setting of an earlier one stays in it: nobody would read what it kept.
if (delivered) config.cacheStores = [];

/**
 * Parts of libraries that are imported by their own index files and never used here, an eighth of the first load together:
 * tabs, stacks, their headers and toolbars, previews of links, lists that draw only what is in sight, pictures from SVG text, schemas made from JSON Schema or into it, or turned into code.
 */
const LEFT_OUT = [
  {
    in: /[\\/]expo-router[\\/]build[\\/]/,
    what: /^\.\/layouts\/(Tabs|Stack|experimental-stack)$|^\.\/toolbar$|^\.\/LinkWithPreview$|^\.\/preview\/HrefPreview$|\/react-navigation\/bottom-tabs$|\/views\/(Sitemap|NativeStackView|BottomTabBar|BottomTabView)$/,
  },
  { in: /[\\/]react-native-web[\\/]/, what: /\/(FlatList|SectionList|VirtualizedList|VirtualizedSectionList)$/ },
  { in: /[\\/]react-native-svg[\\/]/, what: /^\.\.?\/xml$/ },
  {
    in: /[\\/]zod[\\/]v4[\\/]/,
    what: /\/(from-json-schema|compile|json-schema-processors|json-schema-generator)\.js$/,
  },
];

const upstream = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  // zod re-exports its messages in every language; the app speaks English only.
  if (name.endsWith('/locales/index.js') && /[\\/]zod[\\/]/.test(context.originModulePath))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'metro.zod-locales.js') };
  if (delivered && name.endsWith('/to-json-schema.js') && /[\\/]zod[\\/]/.test(context.originModulePath))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'metro.zod-json-schema.js') };
  // Its flags alone are set, for telephones' own screens.
  if (delivered && name === 'react-native-screens' && /[\\/]expo-router[\\/]/.test(context.originModulePath))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'metro.no-screens.js') };
  if (delivered && LEFT_OUT.some((part) => part.in.test(context.originModulePath) && part.what.test(name)))
    return { type: 'sourceFile', filePath: path.join(__dirname, 'metro.left-out.js') };
  return (upstream ?? context.resolveRequest)(context, name, platform);
};
module.exports = withNativeWind(config, { input: './global.css', inlineRem: 16 });
