import type { RulingMethod } from '@yosoku/core/measure/read-methods';
import type { ZeroMethodName } from '@yosoku/core/tdc/zero-methods';

/** Who is asking. Every query is scoped by `shopId`. */
export interface Account {
  readonly builderId: string;
  readonly builderName: string;
  readonly role: 'owner' | 'builder';
  readonly shopId: string;
  readonly shopName: string;
  /** The shop’s own rule for finding TDC, or null. */
  readonly zeroRule: ZeroMethodName | null;
  /** The shop’s own rule for reading the cam, or null. */
  readonly readRule: RulingMethod | null;
}
