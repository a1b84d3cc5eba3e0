import { createCipheriv, createDecipheriv, randomBytes } from 'node:crypto';
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { keyPath } from '../config.ts';

let key: Buffer | null = null;

/** The key of this installation: made once, readable by its owner alone, apart from the database. */
function theKey(): Buffer {
  if (key) return key;
  if (!existsSync(keyPath)) writeFileSync(keyPath, randomBytes(32), { mode: 0o600, flag: 'wx' });
  return (key = readFileSync(keyPath));
}

/** AES-256-GCM; nonce, tag and text in one base64 line. */
export function seal(text: string): string {
  const nonce = randomBytes(12);
  const cipher = createCipheriv('aes-256-gcm', theKey(), nonce);
  const sealed = Buffer.concat([cipher.update(text, 'utf8'), cipher.final()]);
  return Buffer.concat([nonce, cipher.getAuthTag(), sealed]).toString('base64');
}

/** @throws where the key or the text is not the one it was sealed with */
export function unseal(sealed: string): string {
  const bytes = Buffer.from(sealed, 'base64');
  const decipher = createDecipheriv('aes-256-gcm', theKey(), bytes.subarray(0, 12));
  decipher.setAuthTag(bytes.subarray(12, 28));
  return Buffer.concat([decipher.update(bytes.subarray(28)), decipher.final()]).toString('utf8');
}
