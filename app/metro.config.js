const http = require('http');
const path = require('path');
const { FileStore } = require('@expo/metro/metro-cache');
const { getDefaultConfig } = require('expo/metro-config');

const config = getDefaultConfig(__dirname);
// Metro's own default is one cache for the whole machine.
config.cacheStores = [new FileStore({ root: path.join(__dirname, '.cache/metro') })];
config.resolver.assetExts.push('woff2');

const own = (file) => ({ type: 'sourceFile', filePath: path.join(__dirname, 'src', file) });
const previous = config.resolver.resolveRequest;
config.resolver.resolveRequest = (context, name, platform) => {
  const next = previous ?? context.resolveRequest;
  const from = context.originModulePath.replace(/\\/g, '/');
  // zod re-exports some fifty languages: English alone is half its size.
  if (/\/zod\//.test(from) && /locales\/index\.c?js$/.test(name)) return next(context, name.replace('index', 'en'), platform);
  if (/\/zod\//.test(from) && /\/(to-json-schema|from-json-schema|json-schema-processors|json-schema-generator|compile)\.c?js$/.test(name)) return own('rnw/zodLeftOut.js');
  if (platform === 'web') {
    // Only the parts of Paper that are used; see there.
    if (name === 'react-native-paper') return own('rnw/paper.js');
    // A picked set of paths instead of a 1.3 MB icon font.
    if (/MaterialCommunityIcons$/.test(name)) return own('ui/PaperIcon.tsx');
    // react-native-web drops accessibilityState and accessibilityValue, which Paper relies on.
    if (!/\/src\/rnw\//.test(from)) {
      if (/\/modules\/createDOMProps$/.test(name) || (/\/react-native-web\/dist\/modules\//.test(from) && /\.\/createDOMProps$/.test(name))) return own('rnw/createDOMProps.js');
      if (/\/modules\/forwardedProps$/.test(name)) return own('rnw/forwardedProps.js');
    }
  }
  return next(context, name, platform);
};

// While developing, the API is the server beside us.
const apiPort = Number(process.env.API_PORT ?? 8081);
config.server = {
  ...config.server,
  enhanceMiddleware: (middleware) => (request, response, next) => {
    if (!request.url.startsWith('/api')) return middleware(request, response, next);
    const upstream = http.request({ host: '127.0.0.1', port: apiPort, path: request.url, method: request.method, headers: request.headers }, (answer) => {
      response.writeHead(answer.statusCode, answer.headers);
      answer.pipe(response);
    });
    upstream.on('error', () => {
      response.statusCode = 502;
      response.end('The server is not up.');
    });
    request.pipe(upstream);
  },
};
module.exports = config;
