/** Bytes of base64 text; null where it is none. White space is passed over. */
export function decodeBase64(text: string): Uint8Array | null {
  try {
    const binary = atob(text.replace(/\s+/gu, ''));
    const bytes = new Uint8Array(binary.length);
    for (let at = 0; at < binary.length; at++) bytes[at] = binary.charCodeAt(at);
    return bytes;
  } catch {
    return null;
  }
}

/** Bytes as base64 text. */
export function encodeBase64(bytes: Uint8Array): string {
  let binary = '';
  for (const byte of bytes) binary += String.fromCharCode(byte);
  return btoa(binary);
}
