import QRCode from 'qrcode';

/** How the server is reached from elsewhere: shown in the terminal and on the bench screen. */
export interface Reach {
  /** The best first. */
  readonly addresses: readonly string[];
  /** Where a phone fetches the authority, and its fingerprint; null where every browser knows the certificate. */
  readonly authority: { readonly at: string; readonly fingerprint: string } | null;
}

/** Lines of the terminal: where other machines find this one, as a code that a phone reads, and what to compare. */
export async function reachInWords({ addresses, authority }: Reach): Promise<string[]> {
  const [best] = addresses;
  if (best === undefined) return ['No other machine can reach this one: it has no address on a private network.'];
  const code = await QRCode.toString(authority?.at ?? best, { type: 'terminal', small: true });
  return [
    `From a phone in this network: ${addresses.join(' or ')}`,
    code.trimEnd(),
    ...(authority
      ? ['Once, it installs the certificate of this shop. SHA-256 fingerprint:', authority.fingerprint]
      : []),
  ];
}
