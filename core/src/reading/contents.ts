import { detectDocument, type DetectedDocument } from '../formats/table.ts';
import { looksLikeZip, type LookInto } from '../intake/archive.ts';
import { decode } from '../intake/decode.ts';
import { rootStart } from '../intake/rootOf.ts';

/** What a file is to reading: a document of ours, an archive, or neither. */
type Content = DetectedDocument | 'archive' | null;

function contentOf(content: Uint8Array): Content {
  if (looksLikeZip(content)) return 'archive';
  // Only the kinds we read are parsed; a drawing or a web page with its own troubles is just a file.
  return startsLikeXml(content) ? detectDocument(headOf(content)) : null;
}

/** What the files of a package are, found while they are unpacked; by their hash, since the same bytes are the same. */
export class Contents {
  readonly #found = new Map<string, Content>();

  readonly look: LookInto = (sha256, content) => {
    if (!this.#found.has(sha256)) this.#found.set(sha256, contentOf(content));
  };

  of(sha256: string, read: () => Uint8Array | null): Content {
    const content = this.#found.has(sha256) ? null : read();
    if (content) this.look(sha256, content);
    return this.#found.get(sha256) ?? null;
  }
}

/** So many bytes of a document are looked at to know it. */
const HEAD = 20_000;

/** As much of a document's start as shows its root; a long document type is read to its end. */
function headOf(content: Uint8Array): string {
  const head = decode(content.length > HEAD ? content.subarray(0, HEAD) : content).text;
  return content.length > HEAD && rootStart(head) === 'later' ? decode(content).text : head;
}

/** Whether bytes begin like XML, in any of the encodings we decode. */
export function startsLikeXml(bytes: Uint8Array): boolean {
  return decode(bytes.subarray(0, 256 - (256 % 2)))
    .text.trimStart()
    .startsWith('<');
}
