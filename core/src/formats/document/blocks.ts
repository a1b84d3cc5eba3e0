import chardet from 'chardet';
import { readDocx } from '../../document/docx/read.ts';
import { readHtml } from '../../document/html.ts';
import { readOdt } from '../../document/odt/read.ts';
import { readPdfPages } from '../../document/pdf.ts';
import { Pictures } from '../../document/pictures.ts';
import { readRtf } from '../../document/rtf/read.ts';
import { readText } from '../../document/text.ts';
import type { BlockDocument } from '../../document/block.ts';
import type { Allowance } from '../../intake/archive.ts';
import { decode } from '../../intake/decode.ts';
import { PdfBeyond, type PdfDocument, type Platform } from '../../intake/platform.ts';
import { finding, refuse, type Finding } from '../../model/finding.ts';
import type { Format } from '../../model/holding.ts';

/** A text of more lines is no test bank. */
const MOST_LINES = 300_000;

/** Formats of documents that are read into blocks. */
const DOCUMENT_CONTAINERS = ['docx', 'rtf', 'odt', 'html', 'pdf', 'text'] as const;
export type DocumentContainer = (typeof DOCUMENT_CONTAINERS)[number];
export const isDocument = (container: Format['container']): container is DocumentContainer =>
  (DOCUMENT_CONTAINERS as readonly string[]).includes(container);

/**
 * A document of any format as one stream of blocks.
 * @param fileAt the bytes of a file beside it, by its address there; null where there is none
 * @param allowance what is left for the whole upload, where it is one of several
 * @throws Refusal where it cannot be opened
 */
export async function readBlocks(
  container: DocumentContainer,
  path: string,
  bytes: Uint8Array,
  platform: Platform,
  fileAt: (address: string) => Uint8Array | null = () => null,
  allowance?: Allowance,
): Promise<BlockDocument> {
  switch (container) {
    case 'docx':
      return readDocx(path, bytes, platform, allowance);
    case 'odt':
      return readOdt(path, bytes, platform, allowance);
    case 'rtf':
      return readRtf(path, bytes, platform);
    case 'pdf':
      return readPdf(path, bytes, platform);
    case 'html':
    case 'text': {
      const { text, findings } = textOf(path, bytes);
      const lines = text.split('\n', MOST_LINES + 1).length;
      if (container === 'text' && lines > MOST_LINES)
        refuse('archive-too-large', { path }, { what: 'lines', found: lines, limit: MOST_LINES });
      const found = [...findings];
      const pictures = new Pictures(path, platform, (f) => void found.push(f));
      const read = container === 'html' ? readHtml(path, text, pictures, fileAt) : readText(path, text);
      return { ...read, findings: [...found, ...read.findings] };
    }
  }
}

async function readPdf(path: string, bytes: Uint8Array, platform: Platform): Promise<BlockDocument> {
  const read = await platform.readPdf(bytes).catch((error: Error): PdfDocument => {
    if (error instanceof PdfBeyond) return refuse('document-beyond', { path }, { limit: error.message });
    if (error.name === 'PasswordException') return refuse('document-protected', { path });
    return refuse('document-damaged', { path }, { detail: error.message.replace(/(?<!\.)\.+$/u, '') });
  });
  const document = readPdfPages(path, read.pages, read.title);
  if (!read.scripts) return document;
  const scripts = finding('active-content-removed', 'warning', { path }, { what: 'a script' });
  return { ...document, findings: [scripts, ...document.findings] };
}

/** Windows' western page is what is left where bytes are no UTF-8; what they are is guessed from how often each occurs. */
function textOf(path: string, bytes: Uint8Array): { text: string; findings: Finding[] } {
  const { text, repaired } = decode(bytes);
  if (repaired?.used !== 'windows-1252' || repaired.declared !== 'none') return { text, findings: [] };
  const guess = zeros(bytes) ?? chardet.detect(bytes.subarray(0, 65_536)) ?? 'windows-1252';
  const used = /^ISO-8859-1$/iu.test(guess) ? 'windows-1252' : guess.toLowerCase();
  const found = finding('encoding-repaired', 'note', { path }, { declared: 'none', used });
  if (used === 'windows-1252') return { text, findings: [found] };
  try {
    return { text: new TextDecoder(used).decode(bytes), findings: [found] };
  } catch {
    return { text, findings: [found] };
  }
}

/** UTF-16 without a mark at its start: every other byte of plain letters is zero. */
function zeros(bytes: Uint8Array): string | null {
  const head = bytes.subarray(0, 400);
  const at = (odd: number): number => head.filter((b, n) => n % 2 === odd && b === 0).length;
  if (at(1) > head.length * 0.3) return 'utf-16le';
  return at(0) > head.length * 0.3 ? 'utf-16be' : null;
}
