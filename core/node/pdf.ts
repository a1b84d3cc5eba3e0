// @ts-expect-error -- the library ships no types for its worker; it is only handed on.
import * as pdfWorker from 'pdfjs-dist/legacy/build/pdf.worker.mjs';
import { getDocument, type PDFPageProxy } from 'pdfjs-dist/legacy/build/pdf.mjs';
import type { PdfDocument, PdfPage } from '../src/intake/platform.ts';
import { Painter } from './pdfPainter.ts';

// The library's own worker, in this thread: it looks for it here before it loads one by its address.
(globalThis as { pdfjsWorker?: unknown }).pdfjsWorker = pdfWorker;

/** Longer ones are no test bank. */
const MOST_PAGES = 2000;
const MOST_TEXTS = 400_000;

/** The text layer of a PDF, page by page. Scripts in it are not run, pictures not drawn, nothing is fetched. */
export async function readPdf(bytes: Uint8Array): Promise<PdfDocument> {
  checkObjects(bytes);
  const task = getDocument({
    // The library takes the buffer for its own.
    data: new Uint8Array(bytes),
    isEvalSupported: false,
    disableFontFace: true,
    useSystemFonts: false,
    enableXfa: false,
    useWorkerFetch: false,
    disableAutoFetch: true,
    disableStream: true,
    verbosity: 0,
  });
  try {
    const document = await task.promise;
    if (document.numPages > MOST_PAGES)
      throw new Error(`${document.numPages} pages; at most ${MOST_PAGES} are read`);
    const pages: PdfPage[] = [];
    let count = 0;
    for (let number = 1; number <= document.numPages; number++) {
      const page = await readPage(await document.getPage(number));
      count += page.texts.length;
      if (count > MOST_TEXTS) throw new Error(`more than ${MOST_TEXTS} pieces of text`);
      pages.push(page);
    }
    const { info } = await document.getMetadata();
    const title = (info as { Title?: unknown }).Title;
    const scripts = (await document.getJSActions().catch(() => null)) !== null;
    return { title: typeof title === 'string' ? title.trim() : '', pages, scripts };
  } finally {
    await task.destroy();
  }
}

/** Objects that begin and do not end: mending a file of very many takes the library a time that grows with their square. */
const MOST_OPEN = 200;

function checkObjects(bytes: Uint8Array): void {
  const text = Buffer.from(bytes.buffer, bytes.byteOffset, bytes.byteLength).toString('latin1');
  let open = 0;
  for (const [, end] of text.matchAll(/\b(end)?obj\b/gu)) open += end ? -1 : 1;
  if (open > MOST_OPEN) throw new Error(`${open} of its objects do not end`);
}

async function readPage(page: PDFPageProxy): Promise<PdfPage> {
  const { fnArray, argsArray } = await page.getOperatorList();
  const painter = new Painter((id) => fontName(page, id));
  for (const [at, operator] of fnArray.entries())
    painter.take(operator, argsArray[at] as readonly unknown[] | null);
  const [left = 0, bottom = 0, right = 0, top = 0] = page.view;
  page.cleanup();
  return { width: right - left, height: top - bottom, texts: painter.texts(left, bottom) };
}

function fontName(page: PDFPageProxy, id: string): string {
  try {
    const font = page.commonObjs.get(id) as { name?: string } | null;
    return font?.name ?? '';
  } catch {
    return '';
  }
}
