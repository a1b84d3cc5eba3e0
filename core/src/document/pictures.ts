import { cut } from '../model/cut.ts';
import { imageSize } from 'image-size';
import type { Platform } from '../intake/platform.ts';
import { encodeBase64 } from '../model/base64.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { FileRef } from '../model/holding.ts';
import type { PictureRun } from './block.ts';

/** Pictures that stand in a document become files, the same bytes once. */

/** Pictures that a browser shows, by their first bytes. */
const KINDS: readonly (readonly [ending: string, test: (head: Uint8Array) => boolean])[] = [
  ['png', (h) => h[0] === 0x89 && h[1] === 0x50 && h[2] === 0x4e && h[3] === 0x47],
  ['jpg', (h) => h[0] === 0xff && h[1] === 0xd8 && h[2] === 0xff],
  ['gif', (h) => h[0] === 0x47 && h[1] === 0x49 && h[2] === 0x46 && h[3] === 0x38],
  ['webp', (h) => h[0] === 0x52 && h[1] === 0x49 && h[8] === 0x57 && h[9] === 0x45],
];
const MOST = 2000;
const MAX_BYTES = 100 * 1024 * 1024;

export class Pictures {
  private readonly byPath = new Map<string, FileRef>();
  private total = 0;

  constructor(
    private readonly path: string,
    private readonly platform: Platform,
    private readonly add: (found: Finding) => void,
  ) {}

  get files(): FileRef[] {
    return [...this.byPath.values()];
  }

  /** The run of a picture; null, with a finding, for what is none that a browser shows. @param name for the finding */
  take(
    bytes: Uint8Array | null,
    name: string,
    over: Partial<Pick<PictureRun, 'alt' | 'width' | 'height'>> = {},
  ): PictureRun | null {
    const kind = bytes && KINDS.find(([, test]) => test(bytes))?.[0];
    if (!bytes || !kind) return this.refuse(bytes ? `${name}: not a PNG, JPEG, GIF or WebP picture` : name);
    this.total += bytes.length;
    if (this.byPath.size >= MOST || this.total > MAX_BYTES) return this.refuse(`${name}: too many pictures`);
    const sha256 = this.platform.sha256(bytes);
    const path = `embedded/${sha256.slice(0, 12)}.${kind}`;
    if (!this.byPath.has(path))
      this.byPath.set(path, { path, bytes: bytes.length, sha256, embedded: encodeBase64(bytes) });
    const size = over.width ? null : sizeOf(bytes);
    return {
      kind: 'picture',
      path,
      alt: over.alt ?? '',
      width: over.width ?? size?.width ?? null,
      height: over.height ?? size?.height ?? null,
    };
  }

  /** A picture on another server is named, and not fetched. */
  remote(address: string): null {
    this.add(finding('remote-media', 'warning', { path: this.path }, { address: cut(address, 200) }));
    return null;
  }

  private refuse(what: string): null {
    this.add(finding('picture-unread', 'warning', { path: this.path }, { what }));
    return null;
  }
}

function sizeOf(bytes: Uint8Array): { width: number; height: number } | null {
  try {
    const { width, height } = imageSize(bytes);
    return width > 0 && height > 0 ? { width, height } : null;
  } catch {
    return null;
  }
}
