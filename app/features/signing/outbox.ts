/** The acts of a ceremony that the server has not taken yet, one sent after another. */
import { RetryQueue, type QueueState } from '../../api/retry-queue';
import { itemAt } from '@gatepath/core/sure';
import { readActs, readAside, writeActs, writeAside, type PendingAct } from './acts';

export type OutboxState = QueueState<PendingAct>;

/** Maximum number of tries of an act that the server fails on; then the others continue without it. */
const FAILURES = 5;

export class Outbox<View> extends RetryQueue<PendingAct, View> {
  /** @param changed  reports every change; `view` is the server's answer, `null` asks for it again */
  constructor(
    token: string,
    storage: Pick<Storage, 'getItem' | 'setItem' | 'removeItem'>,
    send: (act: PendingAct) => Promise<View>,
    changed: (state: OutboxState, view?: View | null) => void,
  ) {
    super({
      store: {
        read: () => ({ waiting: readActs(token, storage), aside: readAside(token, storage) }),
        writeWaiting: (acts) => writeActs(token, acts, storage),
        writeAside: (acts) => writeAside(token, acts, storage),
      },
      send: (acts) => send(itemAt(acts, 0)),
      changed,
      portion: 1,
      failures: FAILURES,
    });
  }
}
