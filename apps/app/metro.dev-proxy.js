// Development only: hands /api on from Metro's port to the API server, so that the app always asks its own origin.
const http = require('node:http');

module.exports = (metro) => (request, response, next) => {
  if (!request.url.startsWith('/api/')) return metro(request, response, next);
  const options = {
    host: '127.0.0.1',
    port: Number(process.env.API_PORT ?? 8787),
    path: request.url,
    method: request.method,
    headers: request.headers,
  };
  const upstream = http.request(options, (answer) => {
    response.writeHead(answer.statusCode, answer.headers);
    answer.pipe(response);
  });
  upstream.on('error', () => {
    response.statusCode = 502;
    response.end();
  });
  request.pipe(upstream);
};
