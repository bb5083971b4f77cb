import { BlockList, isIP } from 'node:net';
import { getConnInfo } from '@hono/node-server/conninfo';
import type { Context } from 'hono';

/** What is known of where a request came from. */
export interface Caller {
  readonly address: string;
  readonly secure: boolean;
}

/**
 * Tells where a request came from. What a proxy says of it is believed only of those that are named: anybody can write such headers.
 * @param trusted addresses and ranges, "10.0.0.2, 192.168.1.0/24"; empty: nobody.
 */
export function makeCallerOf(trusted: string) {
  const proxies = new BlockList();
  for (const each of trusted
    .split(',')
    .map((part) => part.trim())
    .filter(Boolean)) {
    const [address = '', bits] = each.split('/');
    const family = isIP(address) === 6 ? 'ipv6' : 'ipv4';
    if (isIP(address) === 0) throw new Error(`TRUSTED_PROXIES: “${each}” is no address.`);
    if (bits === undefined) proxies.addAddress(address, family);
    else proxies.addSubnet(address, Number(bits), family);
  }
  const isTrusted = (address: string): boolean => {
    const plain = address.replace(/^::ffff:/, '');
    return isIP(plain) !== 0 && proxies.check(plain, isIP(plain) === 6 ? 'ipv6' : 'ipv4');
  };
  const socketOf = (c: Context): string => {
    try {
      return getConnInfo(c).remote.address ?? 'unknown';
    } catch {
      // Without a socket (in-process tests) every caller shares one address.
      return 'unknown';
    }
  };
  return function callerOf(c: Context): Caller {
    const socket = socketOf(c);
    const secure = new URL(c.req.url).protocol === 'https:';
    if (!isTrusted(socket)) return { address: socket, secure };
    // The nearest that is no proxy of ours: what stands before it anybody could have written.
    const hops = (c.req.header('x-forwarded-for') ?? '')
      .split(',')
      .map((each) => each.trim())
      .filter(Boolean);
    return {
      address: hops.findLast((hop) => !isTrusted(hop)) ?? socket,
      secure: secure || c.req.header('x-forwarded-proto')?.split(',')[0]?.trim() === 'https',
    };
  };
}

export type CallerOf = ReturnType<typeof makeCallerOf>;
