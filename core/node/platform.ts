import { hash } from 'node:crypto';
import { crc32, deflateRawSync, inflateRawSync } from 'node:zlib';
import ExcelJS from 'exceljs';
import yauzl from 'yauzl';
import type { Platform, ZipEntry, ZipListing } from '../src/intake/platform.ts';
import { readPdfApart } from './pdfApart.ts';

/** What inflating and deflating allot at a time, in bytes. */
const [SMALLEST_CHUNK, LARGEST_CHUNK] = [64, 1 << 20];

const END_SIGNATURE = 0x06054b50;
const LOCAL_SIGNATURE = 0x04034b50;
const END_SIZE = 22;
const LONG_LOCATOR_SIGNATURE = 0x07064b50;
const LONG_LOCATOR_SIZE = 20;
const LONG_END_SIGNATURE = 0x06064b50;
const LONG_END_SIZE = 56;

/** Node's inflate, CRC and hash, and yauzl's directory reader, behind core's Platform. */
export const nodePlatform: Platform = {
  listZip,
  inflateRaw(data, maxBytes) {
    try {
      // Room for just what is to come: a file of a few lines is the most common one.
      const chunkSize = Math.max(SMALLEST_CHUNK, Math.min(maxBytes, LARGEST_CHUNK));
      return inflateRawSync(data, { maxOutputLength: Math.max(1, maxBytes), chunkSize });
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code === 'ERR_BUFFER_TOO_LARGE') return null;
      throw error;
    }
  },
  deflateRaw(data, level = 6) {
    // What comes lies in a room of its own size: many small files would hold that of many large ones.
    const chunkSize = Math.max(SMALLEST_CHUNK, Math.min(data.length, LARGEST_CHUNK));
    return new Uint8Array(deflateRawSync(data, { level, chunkSize }));
  },
  crc32: (data) => crc32(data),
  sha256: (data) => hash('sha256', data, 'hex'),
  readSheets,
  readPdf: (bytes) => readPdfApart(bytes),
  writeSheet,
};

/** Parts of a sheet that say nothing; some of them the library would spread over every cell that they speak of. */
const NOT_TEXT = [
  'autoFilter',
  'cols',
  'conditionalFormatting',
  'dataValidations',
  'drawing',
  'extLst',
  'headerFooter',
  'pageMargins',
  'pageSetup',
  'picture',
  'printOptions',
  'rowBreaks',
  'sheetProtection',
  'tableParts',
];

/** Cells as a person sees them: dates in ISO form, formulas by their result. */
async function readSheets(bytes: Uint8Array): Promise<{ name: string; rows: string[][] }[]> {
  const book = new ExcelJS.Workbook();
  // A copy of its own: what it is given may lie within the bytes of an archive.
  await book.xlsx.load(new Uint8Array(bytes).buffer, { ignoreNodes: NOT_TEXT });
  return book.worksheets.map((sheet) => {
    const rows: string[][] = [];
    sheet.eachRow({ includeEmpty: true }, (row, at) => {
      const cells: string[] = [];
      row.eachCell({ includeEmpty: true }, (cell, n) => {
        // A merged cell says its text once, in its first cell.
        const value = cell.isMerged && cell.master !== cell ? null : cell.value;
        cells[n - 1] = cellText(value);
      });
      rows[at - 1] = Array.from(cells, (c) => c ?? '');
    });
    return { name: sheet.name, rows: Array.from(rows, (r) => r ?? []) };
  });
}

function cellText(value: ExcelJS.CellValue): string {
  if (value === null || value === undefined) return '';
  if (value instanceof Date) return value.toISOString().slice(0, 10);
  if (typeof value !== 'object') return String(value);
  if ('richText' in value) return value.richText.map((r) => r.text).join('');
  if ('result' in value) return cellText(value.result ?? null);
  if ('text' in value)
    return typeof value.text === 'string' ? value.text : cellText(value.text as ExcelJS.CellValue);
  return '';
}

/** A fixed date, so that the same content is told by its bytes as far as the library allows. */
const MADE = new Date(Date.UTC(2000, 0, 1));

async function writeSheet(name: string, rows: readonly (readonly string[])[]): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  book.created = MADE;
  book.modified = MADE;
  const sheet = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
  for (const row of rows)
    sheet.addRow(row.map((cell) => (/^-?\d+(?:\.\d+)?$/u.test(cell) ? Number(cell) : cell)));
  sheet.getRow(1).font = { bold: true };
  sheet.columns.forEach((column, at) => {
    column.width = Math.min(48, Math.max(10, ...rows.map((r) => (r[at] ?? '').length / 2)));
    column.alignment = { wrapText: true, vertical: 'top' };
  });
  return new Uint8Array(await book.xlsx.writeBuffer());
}

async function listZip(given: Uint8Array, most: number): Promise<ZipListing> {
  const all = Buffer.from(given.buffer, given.byteOffset, given.byteLength);
  const { bytes, surrounded } = trim(all);
  const zip = await new Promise<yauzl.ZipFile>((resolve, reject) =>
    yauzl.fromBuffer(
      bytes,
      { lazyEntries: true, decodeStrings: false, validateEntrySizes: false, autoClose: false },
      (error, file) => (error ? reject(error) : resolve(file)),
    ),
  );
  const entries = await new Promise<ZipEntry[]>((resolve, reject) => {
    const found: ZipEntry[] = [];
    zip.on('entry', (entry: yauzl.Entry) => {
      found.push(describe(entry, bytes));
      if (found.length >= most) resolve(found);
      else zip.readEntry();
    });
    zip.on('end', () => resolve(found));
    zip.on('error', reject);
    zip.readEntry();
  });
  return { bytes, entries, surrounded };
}

/** Cuts away bytes before and after the zip, found from its end record. */
function trim(all: Buffer): { bytes: Buffer; surrounded: boolean } {
  const lowest = Math.max(0, all.length - END_SIZE - 0xffff - 0x10000);
  for (let at = all.length - END_SIZE; at >= lowest; at--) {
    if (all.readUInt32LE(at) !== END_SIGNATURE) continue;
    const before = bytesBefore(all, at);
    if (before === null) return { bytes: all, surrounded: false };
    const comment = all.readUInt16LE(at + 20);
    const end = Math.min(all.length, at + END_SIZE + comment);
    if (before < 0) continue;
    const surrounded = before > 0 || end < all.length;
    return { bytes: surrounded ? all.subarray(before, end) : all, surrounded };
  }
  return { bytes: all, surrounded: false };
}

/** Bytes before the zip whose end record stands there; null where that cannot be told. */
function bytesBefore(all: Buffer, at: number): number | null {
  const locator = at - LONG_LOCATOR_SIZE;
  if (locator < 0 || all.readUInt32LE(locator) !== LONG_LOCATOR_SIGNATURE)
    return at - all.readUInt32LE(at + 12) - all.readUInt32LE(at + 16);
  // Zip64 (APPNOTE 6.3.3, 4.3.14 and 4.3.15): its end record stands right before what says where it is.
  const record = locator - LONG_END_SIZE;
  if (record < 0 || all.readUInt32LE(record) !== LONG_END_SIGNATURE) return null;
  return record - Number(all.readBigUInt64LE(locator + 8));
}

function describe(entry: yauzl.Entry, bytes: Buffer): ZipEntry {
  const raw =
    (entry as unknown as { fileNameRaw?: Buffer }).fileNameRaw ?? (entry.fileName as unknown as Buffer);
  const local = localHeader(entry.relativeOffsetOfLocalHeader, bytes);
  return {
    name: decodeName(entry, raw),
    localNameDiffers: local !== null && !local.name.equals(raw),
    method: entry.compressionMethod,
    encrypted: (entry.generalPurposeBitFlag & 1) !== 0 || entry.compressionMethod === 99,
    link: entry.versionMadeBy >> 8 === 3 && ((entry.externalFileAttributes >>> 16) & 0xf000) === 0xa000,
    crc32: entry.crc32,
    packed: entry.compressedSize,
    unpacked: entry.uncompressedSize,
    dataStart: local?.dataStart ?? -1,
  };
}

function localHeader(offset: number, bytes: Buffer): { name: Buffer; dataStart: number } | null {
  if (offset + 30 > bytes.length || bytes.readUInt32LE(offset) !== LOCAL_SIGNATURE) return null;
  const nameLength = bytes.readUInt16LE(offset + 26);
  const extraLength = bytes.readUInt16LE(offset + 28);
  return {
    name: bytes.subarray(offset + 30, offset + 30 + nameLength),
    dataStart: offset + 30 + nameLength + extraLength,
  };
}

/**
 * UTF-8 where the bytes are valid UTF-8 (many writers leave the flag out), else as the zip specification
 * says.
 */
function decodeName(entry: yauzl.Entry, raw: Buffer): string {
  try {
    return new TextDecoder('utf-8', { fatal: true }).decode(raw);
  } catch {
    return yauzl.getFileNameLowLevel(entry.generalPurposeBitFlag, raw, entry.extraFields as never, false);
  }
}
