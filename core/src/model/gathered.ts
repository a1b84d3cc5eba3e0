/** Pieces are put together at this many bytes: hundreds of thousands of small ones take more than what they hold. */
const TOGETHER = 2 ** 20;

/** Bytes that come piece by piece. */
export class Gathered {
  readonly #done: Uint8Array[] = [];
  #waiting: Uint8Array[] = [];
  #waitingBytes = 0;
  #doneBytes = 0;

  get bytes(): number {
    return this.#doneBytes + this.#waitingBytes;
  }

  add(piece: Uint8Array): void {
    this.#waiting.push(piece);
    this.#waitingBytes += piece.length;
    if (this.#waitingBytes < TOGETHER) return;
    this.#done.push(joined(this.#waiting));
    this.#doneBytes += this.#waitingBytes;
    this.#waiting = [];
    this.#waitingBytes = 0;
  }

  /** All of it. @param more what follows */
  whole(...more: readonly Uint8Array[]): Uint8Array {
    return joined([...this.#done, ...this.#waiting, ...more]);
  }
}

function joined(pieces: readonly Uint8Array[]): Uint8Array {
  const out = new Uint8Array(pieces.reduce((sum, piece) => sum + piece.length, 0));
  let at = 0;
  for (const piece of pieces) {
    out.set(piece, at);
    at += piece.length;
  }
  return out;
}
