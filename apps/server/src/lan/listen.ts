import { readFileSync } from 'node:fs';
import { type Server as HttpServer, createServer as createHttp } from 'node:http';
import { type Server as HttpsServer, createServer as createHttps } from 'node:https';
import type { AddressInfo } from 'node:net';
import { createAdaptorServer } from '@hono/node-server';
import type { WebSocketServer } from 'ws';
import { addressOf, localName, privateAddresses } from './addresses';
import { type Authority, type ServerCertificate, openAuthority } from './authority';
import { onePort } from './one-port';
import { plainSite } from './plain-site';
import type { Reach } from './reach';

type Fetch = Parameters<typeof createAdaptorServer>[0]['fetch'];

/** How a server listens: closed as a whole, and its connections let go. */
export interface Listening {
  readonly close: (over: () => void) => void;
  readonly closeIdle: () => void;
  readonly closeAll: () => void;
}

interface LanSettings {
  readonly fetch: Fetch;
  readonly sockets: WebSocketServer;
  readonly port: number;
  readonly host: string | undefined;
  /** Where the authority is kept. */
  readonly folder: string;
  /** A certificate of the owner's own: files with certificate and key. */
  readonly own: { readonly cert: string; readonly key: string } | null;
  /** The name of this machine on its network; left out: its own. */
  readonly name?: string | undefined;
  readonly onTrouble: (error: Error & { readonly code?: string }) => void;
}

/** Addresses change when a router hands out others, and certificates run out, ms. */
const LOOK_AGAIN_MS = 5 * 60_000;

/** Listens on the machine's addresses, over TLS for all but this machine itself. Resolves once it does. */
export async function listenOnLan(settings: LanSettings): Promise<{ listening: Listening; reach: () => Reach }> {
  const { fetch, sockets, port, host, folder, own, name, onTrouble } = settings;
  const authority: Authority | null = own ? null : await openAuthority(folder, `Yosoku of ${localName(name)}`);
  const names = (): string[] => [localName(name), ...privateAddresses(), 'localhost', '127.0.0.1', '::1'];
  const certificate = async (): Promise<ServerCertificate> =>
    authority
      ? authority.certificateFor(names())
      : { cert: readFileSync(own?.cert ?? '', 'utf8'), key: readFileSync(own?.key ?? '', 'utf8') };

  const websocket = { server: sockets };
  const secure = createAdaptorServer({
    fetch,
    websocket,
    createServer: createHttps,
    serverOptions: await certificate(),
  }) as HttpsServer;
  const here = createAdaptorServer({ fetch, websocket, createServer: createHttp }) as HttpServer;
  const plain = createAdaptorServer({
    fetch: plainSite({ authority, port }).fetch,
    createServer: createHttp,
  }) as HttpServer;
  const behind = [secure, here, plain];
  // They never listen themselves; what watches over slow and idle connections begins with this event.
  for (const each of behind) each.emit('listening');

  const renew = setInterval(() => {
    certificate().then((now) => secure.setSecureContext(now), onTrouble);
  }, LOOK_AGAIN_MS);
  renew.unref();

  const front = onePort({ secure, here, plain });
  front.on('error', onTrouble);
  await new Promise<void>((resolve) => front.listen(port, host, resolve));
  const bound = (front.address() as AddressInfo).port;
  return {
    listening: {
      close: (over) => {
        clearInterval(renew);
        front.close(over);
      },
      closeIdle: () => behind.forEach((each) => each.closeIdleConnections()),
      closeAll: () => behind.forEach((each) => each.closeAllConnections()),
    },
    reach: () => {
      const hosts = [...privateAddresses(), localName(name)];
      return {
        addresses: hosts.map((each) => addressOf(each, bound)),
        authority: authority && {
          at: addressOf(hosts[0] ?? 'localhost', bound, 'http'),
          fingerprint: authority.fingerprint,
        },
      };
    },
  };
}
