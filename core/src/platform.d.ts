/** The few web-standard globals core uses; both Node and browsers have them. */
declare class TextDecoder {
  readonly encoding: string;
  constructor(label?: string, options?: { fatal?: boolean; ignoreBOM?: boolean });
  decode(input?: Uint8Array): string;
}
declare function atob(data: string): string;
declare class TextEncoder {
  encode(input?: string): Uint8Array;
}
declare function btoa(data: string): string;
declare function structuredClone<T>(value: T): T;
