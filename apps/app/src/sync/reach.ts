/** How other machines find this server, as it says itself. */
export interface Reach {
  readonly addresses: readonly string[];
  readonly authority: { readonly at: string; readonly fingerprint: string } | null;
}

const LOOPBACK = /^(localhost|127\.|\[::1\])/;

/** By which address another device finds this server: the one that the server names, or that of this page where it is none of this machine alone. */
export const originFor = ({ addresses }: Reach): string | null =>
  addresses[0] ?? (LOOPBACK.test(location.hostname) ? null : location.origin);
