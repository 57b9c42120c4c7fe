import type { Config } from './config';
import type { Clock } from './clock';
import type { Database } from './db/pool';
import type { FileStore } from './files/store';
import type { Firm } from './firm/queries';
import type { Jobs } from './jobs/jobs';
import type { Live } from './live/live';
import type { WorkPool } from './work/pool';
import type { Packets } from './packets/packets';
import type { Seal } from './proof/seal-key';
import type { LinkRow } from './links/queries';

/** What every service has at hand. */
export interface Context {
  config: Config;
  clock: Clock;
  database: Database;
  files: FileStore;
  work: WorkPool;
  packets: Packets;
  live: Live;
  jobs: Jobs;
  /** The pass with a token of this hash; those who ask at once are answered together. */
  linkByHash(tokenHash: string): Promise<LinkRow | null>;
  /** The firm, from memory: it is asked for with nearly every request. */
  firm(): Promise<Firm | null>;
  /** The firm's seal; made at the first use, when the firm has a name to put on it. */
  seal(): Promise<Seal>;
}
