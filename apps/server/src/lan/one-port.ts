import { type Server as HttpServer } from 'node:http';
import { type Server as HttpsServer } from 'node:https';
import { type Server, type Socket, createServer } from 'node:net';

/** The first byte of a TLS handshake: RFC 8446, 5.1. */
const HANDSHAKE = 0x16;
/** Who says nothing for so long is let go, ms. */
const SILENT_MS = 20_000;

/** On this machine itself nothing is listened in on, and browsers take the page for secure. */
const isLoopback = (address: string | undefined): boolean =>
  address !== undefined && /^(::1|(::ffff:)?127\.)/.test(address);

interface Behind {
  readonly secure: HttpsServer;
  /** For browsers of this machine: the same, unencrypted. */
  readonly here: HttpServer;
  /** For those who come from elsewhere without encryption. */
  readonly plain: HttpServer;
}

/** One port for all of them: whoever types the address without its https comes to the right place too. */
export function onePort({ secure, here, plain }: Behind): Server {
  const pass = (socket: Socket): void => {
    socket.setTimeout(SILENT_MS, () => socket.destroy());
    socket.once('error', () => socket.destroy());
    socket.once('data', (first: Buffer) => {
      socket.pause();
      socket.setTimeout(0);
      socket.removeAllListeners('timeout');
      const to = first[0] === HANDSHAKE ? secure : isLoopback(socket.remoteAddress) ? here : plain;
      socket.unshift(first);
      to.emit('connection', socket);
      // Resumed by whoever reads it now; a TLS socket reads below this one.
      process.nextTick(() => socket.resume());
    });
  };
  return createServer({ noDelay: true }, pass);
}
