import type { ChildProcess } from 'node:child_process';

export interface StandinAddresses {
  readonly quayside: string;
  readonly foreshore: string;
  readonly mail: string;
  readonly smtp: string;
  readonly library: string;
}
export declare function startStandins(options?: {
  readonly port?: number;
  readonly folder?: string | null;
  readonly pairs?: number;
  readonly items?: number;
  readonly quiet?: boolean;
}): Promise<{ child: ChildProcess; addresses: StandinAddresses }>;
