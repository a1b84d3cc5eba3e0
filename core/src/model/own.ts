/**
 * Records whose keys are names from a package. A name may be anything, `constructor` and `__proto__` too, so
 * a plain `record[name]` may answer with something nobody put there.
 */

/** What was put into a record under this name; undefined where nothing was. */
export function own<T>(record: Readonly<Record<string, T>>, name: string): T | undefined {
  return Object.hasOwn(record, name) ? record[name] : undefined;
}

/** Puts a value into a record under any name. */
export function put<T>(record: Record<string, T>, name: string, value: T): void {
  Object.defineProperty(record, name, { value, enumerable: true, configurable: true, writable: true });
}
