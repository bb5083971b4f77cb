import { BlockList, isIPv6 } from 'node:net';
import os from 'node:os';

const mine = new BlockList();
for (const [net, bits] of [
  ['10.0.0.0', 8],
  ['100.64.0.0', 10],
  ['169.254.0.0', 16],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
] as const)
  mine.addSubnet(net, bits, 'ipv4');
mine.addSubnet('fc00::', 7, 'ipv6');

/** Addresses by which machines of the same private network reach this one, those of IPv4 first. */
export function privateAddresses(interfaces = os.networkInterfaces()): string[] {
  const found = Object.values(interfaces)
    .flatMap((each) => each ?? [])
    .filter(({ internal, address }) => !internal && mine.check(address, isIPv6(address) ? 'ipv6' : 'ipv4'))
    .map(({ address }) => address);
  return [...new Set(found)].sort((a, b) => Number(isIPv6(a)) - Number(isIPv6(b)));
}

/**
 * The name of this machine on its network.
 * @param name as set by whoever runs it, or the machine's own.
 * @example localName('Bench PC') // "bench-pc.local"
 */
export function localName(name: string = os.hostname()): string {
  const plain = name
    .toLowerCase()
    .replace(/\.local$/, '')
    .split('.')[0]
    ?.replace(/[^a-z0-9-]+/g, '-')
    .replace(/^-+|-+$/g, '');
  return `${plain === undefined || plain === '' ? 'yosoku' : plain}.local`;
}

/** `addressOf('fd00::1', 8787)` is "https://[fd00::1]:8787". */
export const addressOf = (host: string, port: number, scheme: 'http' | 'https' = 'https'): string =>
  `${scheme}://${isIPv6(host) ? `[${host}]` : host}:${port}`;
