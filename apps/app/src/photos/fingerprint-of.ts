import { sha256 } from '@noble/hashes/sha2';
import { bytesToHex } from '@noble/hashes/utils';

/** SHA-256 as it names pictures. The browser's own is there over https alone. */
export const fingerprintOf = (bytes: Uint8Array): string => bytesToHex(sha256(bytes));
