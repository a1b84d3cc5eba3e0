import type { Command } from 'prosemirror-state';
import type { Edit } from '@alforja/core';
import { bytes } from '../format';
import { putPicture } from './editing';

/** The largest picture that is put in, in bytes. */
const MOST = 5_000_000;
const KNOWN: Readonly<Record<string, string>> = {
  'image/png': 'png',
  'image/jpeg': 'jpg',
  'image/gif': 'gif',
  'image/webp': 'webp',
};

export interface PictureIn {
  readonly path: string;
  /** As the page can show it before the package has it. */
  readonly shown: string;
  readonly edit: Edit;
  readonly command: (alt: string) => Command;
}

const hex = (buffer: ArrayBuffer): string =>
  [...new Uint8Array(buffer)].map((b) => b.toString(16).padStart(2, '0')).join('');

interface Held {
  readonly sha256: string;
  /** As an address of its own bytes. */
  readonly shown: string;
  readonly base64: string;
  readonly ending: string;
}

/** @throws Error in words for people where a picture cannot be taken */
async function held(file: File): Promise<Held> {
  const ending = KNOWN[file.type];
  if (!ending) throw new Error(`${file.name} is no picture that every system shows: PNG, JPEG, GIF or WebP.`);
  if (file.size > MOST)
    throw new Error(`${file.name} has ${bytes(file.size)}; pictures can have ${bytes(MOST)}.`);
  const sha256 = hex(await crypto.subtle.digest('SHA-256', await file.arrayBuffer()));
  const shown = await new Promise<string>((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(new Error(`${file.name} could not be read.`));
    reader.readAsDataURL(file);
  });
  return { sha256, shown, base64: shown.slice(shown.indexOf(',') + 1), ending };
}

/**
 * A picture as an edit that puts it into the package, and as the command that shows it in a text.
 * @throws Error in words for people where it cannot be taken
 */
export async function pictureEdit(file: File, node: string): Promise<PictureIn> {
  const { sha256, shown, base64, ending } = await held(file);
  const stem = file.name
    .replace(/\.[^.]*$/u, '')
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .slice(0, 40);
  const path = `images/${stem || 'picture'}-${sha256.slice(0, 8)}.${ending}`;
  return {
    path,
    shown,
    edit: { op: 'file-put', node, path, to: { base64, sha256, bytes: file.size } },
    command: (alt) => putPicture(path, alt),
  };
}

/**
 * A picture in the place of one that the package does not have.
 * @throws Error in words for people where it cannot be taken
 */
export async function fileInPlace(file: File, node: string, path: string): Promise<Edit> {
  const { sha256, base64 } = await held(file);
  return { op: 'file-put', node, path, to: { base64, sha256, bytes: file.size } };
}
