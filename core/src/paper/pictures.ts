import { imageSize } from 'image-size';

export interface Picture {
  readonly bytes: Uint8Array;
  readonly type: 'png' | 'jpg' | 'gif' | 'webp';
  /** Pixels. */
  readonly width: number;
  readonly height: number;
}

/** The bytes of a file of the package by its path; null where it is not there. */
export type ReadFile = (path: string) => Uint8Array | null;

const TYPES: ReadonlySet<string> = new Set(['png', 'jpg', 'gif', 'webp']);

/** A picture of a package; null for what is not there, is elsewhere, or is none that can be set. */
export function pictureAt(src: string, read: ReadFile): Picture | null {
  const bytes = /^(?:[a-z][a-z0-9+.-]*:|\/\/)/iu.test(src) ? null : read(src);
  if (!bytes) return null;
  try {
    const { width, height, type = '' } = imageSize(bytes);
    if (!TYPES.has(type) || !(width > 0) || !(height > 0)) return null;
    return { bytes, type: type as Picture['type'], width, height };
  } catch {
    return null;
  }
}

/** As large as it is asked for, or is, and no larger than there is room; its proportions stay. */
export function fitted(
  { width, height }: { readonly width: number; readonly height: number },
  asked: { readonly width: number | null; readonly height: number | null },
  room: { readonly width: number; readonly height: number },
): { width: number; height: number } {
  const ratio = height / width;
  const wide = asked.width ?? (asked.height === null ? width : asked.height / ratio);
  const scale = Math.min(1, room.width / wide, room.height / (wide * ratio));
  return {
    width: Math.max(1, Math.round(wide * scale)),
    height: Math.max(1, Math.round(wide * ratio * scale)),
  };
}
