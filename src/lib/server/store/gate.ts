import { setTimeout as wait } from 'node:timers/promises';

/**
 * The database's driver is native code that ends the whole process where its thread is ended in the middle of a call. So
 * whoever ends a thread closes its gate first: no call begins any more, and those under way have come back. And a thread
 * that might end by itself, for want of memory, looks before it asks for anything.
 */

/** No call begins any more; below it the cell counts threads that have one under way. */
const CLOSED = 2 ** 30;
const LOOK_EVERY_MS = 2;

/** Shared by a thread, the threads it starts, and whoever may end them. */
export class Gate {
  readonly #cell: Int32Array<SharedArrayBuffer>;
  /** Calls of this thread that are under way. */
  #under = 0;

  /** @param shared of the same gate in another thread */
  constructor(readonly shared = new SharedArrayBuffer(Int32Array.BYTES_PER_ELEMENT)) {
    this.#cell = new Int32Array(shared);
  }

  /**
   * Passes through before a call. Where the gate is closed, the thread stands still until it is ended; unless another of
   * its calls is under way: that may wait for this one, and would never come back.
   */
  enter(): void {
    if (this.#under++ > 0) return;
    for (;;) {
      const now = Atomics.load(this.#cell, 0);
      if (now >= CLOSED) Atomics.wait(this.#cell, 0, now);
      else if (Atomics.compareExchange(this.#cell, 0, now, now + 1) === now) return;
    }
  }

  /** Says that the call has come back. */
  leave(): void {
    if (--this.#under === 0) Atomics.sub(this.#cell, 0, 1);
  }

  /** Lets no call begin any more. @returns once none is under way: the threads may be ended */
  async close(): Promise<void> {
    Atomics.or(this.#cell, 0, CLOSED);
    while (Atomics.load(this.#cell, 0) !== CLOSED) await wait(LOOK_EVERY_MS);
  }
}

let own: Gate | null = null;

const nothing = (): void => undefined;
let ready = nothing;
/** What is asked of the driver; the rest brings to an end what was begun. */
const ASKING: ReadonlySet<string | symbol> = new Set(['execute', 'batch', 'transaction']);

/**
 * What this thread's calls pass from now on.
 * @param gate null where nobody ends the thread
 * @param before looks whether anything may be asked for; throws where it may not
 */
export function passThrough(gate: Gate | null, before = nothing): void {
  own = gate;
  ready = before;
}

/** The gate of this thread, for threads that it starts; null where nobody ends it. */
export const ownGate = (): Gate | null => own;

/** Calls the driver; this thread is not ended before it has come back. */
function passed<T>(call: () => T): T {
  const gate = own;
  if (gate === null) return call();
  gate.enter();
  let result: T;
  try {
    result = call();
  } catch (error) {
    gate.leave();
    throw error;
  }
  if (result instanceof Promise) return result.finally(() => gate.leave()) as T;
  gate.leave();
  return result;
}

/**
 * A client or a transaction of the driver all of whose calls pass the gate.
 * @param open makes it
 */
export function behindGate<T extends object>(open: () => T): T {
  return new Proxy(passed(open), {
    get(of, name) {
      const value: unknown = passed(() => Reflect.get(of, name, of));
      if (typeof value !== 'function') return value;
      return (...asked: unknown[]): unknown => {
        if (ASKING.has(name)) ready();
        const result: unknown = passed(() => value.apply(of, asked) as unknown);
        if (name !== 'transaction') return result;
        return (result as Promise<object>).then((begun) => behindGate(() => begun));
      };
    },
  });
}
