/** Keeps work on one thing apart: each waits until those before it have ended. */
export interface Turns {
  inTurn<T>(thing: string, work: () => Promise<T>): Promise<T>;
}

/** Turns within this process. */
class ProcessTurns implements Turns {
  readonly #last = new Map<string, Promise<unknown>>();

  inTurn<T>(thing: string, work: () => Promise<T>): Promise<T> {
    const before = this.#last.get(thing) ?? Promise.resolve();
    const mine = before.then(work, work);
    const settled = mine.catch(() => undefined);
    this.#last.set(thing, settled);
    return mine.finally(() => {
      if (this.#last.get(thing) === settled) this.#last.delete(thing);
    });
  }
}

export const turns: Turns = new ProcessTurns();
