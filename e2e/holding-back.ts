import http from 'node:http';
import type net from 'node:net';

/**
 * A slow line to the server: pages pass at once, the program's pieces when they are let go. A check waits then for what it has seen, not for the clock.
 * @param base address of the server.
 */
export async function holdBackProgram(base: string) {
  const waiting: (() => void)[] = [];
  let state: 'held' | 'let go' | 'broken' = 'held';
  const line = http.createServer((request, response) => {
    const pass = (): void => {
      if (state === 'broken') return void request.socket.destroy();
      const { method, headers, url = '/' } = request;
      const onward = http.request(base + url, { method, headers }, (answer) => {
        response.writeHead(answer.statusCode ?? 502, answer.headers);
        answer.pipe(response);
      });
      onward.on('error', () => response.destroy());
      request.pipe(onward);
    };
    if (state === 'held' && request.url?.startsWith('/_expo/static/js/')) waiting.push(pass);
    else pass();
  });
  await new Promise<void>((resolve) => line.listen(0, '127.0.0.1', resolve));
  const goOn = (how: 'let go' | 'broken'): void => {
    state = how;
    for (const pass of waiting.splice(0)) pass();
  };
  return {
    base: `http://127.0.0.1:${(line.address() as net.AddressInfo).port}`,
    letGo: () => goOn('let go'),
    break: () => goOn('broken'),
    close: async (): Promise<void> => {
      line.closeAllConnections();
      await new Promise((resolve) => line.close(resolve));
    },
  };
}
