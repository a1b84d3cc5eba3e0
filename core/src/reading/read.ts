import { checkRubrics } from '../checks/checkRubrics.ts';
import { checkSeen } from '../checks/index.ts';
import { emptyDraft } from '../formats/draft.ts';
import type { FileContext, FileRead } from '../formats/format.ts';
import type { DocumentContext } from '../formats/draft.ts';
import { detectFile, type DetectedFile } from '../formats/table.ts';
import { fileStem } from '../intake/paths.ts';
import type { Platform } from '../intake/platform.ts';
import { refill } from '../scoring/budget.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Holding, Item } from '../model/holding.ts';
import { itemWeights } from '../model/places.ts';
import { applyRules } from './applyRules.ts';
import { assemble } from './assemble.ts';
import { Collected } from './collect.ts';
import { idRegistry } from './ids.ts';
import { confirmedBy, openPackage, refuseEmpty, type ReadLimits } from './open.ts';
import { readFolder } from './readFolder.ts';
import { readPackage, type Read, type TakeItem } from './readPackage.ts';
import { settleDraws } from './settle.ts';
import { Settling } from './settling.ts';

/**
 * Reads any file into the canonical tree: open, detect, read, resolve, settle points, check.
 * @param name the file's name, for messages and as a last resort for titles
 * @throws Refusal when the file cannot be opened or trusted at all; all other trouble is in `findings`
 */
export async function readHolding(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits = {},
): Promise<Holding> {
  refuseEmpty(name, bytes);
  refill();
  const { holder } = limits;
  // What a finding says may be a place in a document, which would be kept with it.
  const found = new Collected(holder ? (one) => structuredClone(one) : undefined);
  const { add } = found;
  const source = { name, bytes: bytes.length, sha256: platform.sha256(bytes) };
  const claim = idRegistry((kind, id, given) => {
    if (kind !== 'section' && kind !== 'rubric')
      add(finding('identifier-repeated', 'note', { node: given }, { id, kind }));
  });
  const settling = new Settling(holder);
  const whole = await detectFile(bytes, platform);
  const { draft, outline, files, format, title, documents } = whole
    ? await readFile(whole, bytes, {
        path: name,
        claim,
        add,
        platform,
        layouts: limits.layouts ?? [],
        confirmed: confirmedBy(limits),
        onRecognised: limits.onRecognised,
      })
    : await readAny(name, bytes, platform, limits, claim, add, (item) => settling.take(item));
  const assembled = assemble(draft, add);
  const paths = new Set(files.map((f) => f.path));
  const checked: Finding[] = [];
  const ruled = applyRules(assembled.items, limits.rules ?? [], add);
  const weights = itemWeights(assembled.quizzes);
  const { seen, asked } = settling;
  const items: Item[] = [];
  for (const given of ruled) {
    const { item, altered, ...told } = settling.whole(given, weights.get(given.id) ?? 1, paths);
    told.found.forEach(add);
    checked.push(...told.checked);
    items.push(item);
    const wait = limits.onItem?.(item, { asked, of: ruled.length, altered });
    if (wait) await wait;
  }
  const quizzes = settleDraws(assembled.quizzes, items, seen.shuffles);
  if (format.standard === 'unknown')
    add(finding('format-unknown', 'error', { path: name }, { container: format.container }));
  const { rubrics } = draft;
  const read: Holding = {
    source,
    format,
    title: title || quizzes[0]?.title || rubrics[0]?.title || fileStem(name),
    quizzes,
    banks: assembled.banks,
    items,
    rubrics,
    links: draft.links.map(({ path: _path, ...link }) => link),
    files,
    outline,
    findings: found.all,
    ...(documents ? { documents } : {}),
  };
  return {
    ...read,
    findings: [...read.findings, ...checked, ...checkSeen(read, seen), ...checkRubrics(rubrics)],
  };
}

/** A package, or an archive of documents. */
async function readAny(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits,
  claim: DocumentContext['claim'],
  add: (found: Finding) => void,
  take: TakeItem,
): Promise<Read> {
  const held: Finding[] = [];
  const read = await readPackage(name, bytes, platform, limits, claim, (f) => void held.push(f), take);
  const folder =
    read.format.standard === 'unknown' && read.format.container === 'zip'
      ? await readFolder(name, bytes, platform, limits, claim, add)
      : null;
  if (!folder) held.forEach(add);
  return folder ?? read;
}

/** Reads a file that is no package. */
async function readFile(
  { reader, format }: DetectedFile,
  bytes: Uint8Array,
  context: FileContext,
): Promise<Read> {
  const read: FileRead =
    format.standard === 'unknown' ? { draft: emptyDraft() } : await reader.read(format, bytes, context);
  const { draft, files = [], title = '', documents } = read;
  return {
    draft,
    outline: [],
    files,
    format: { ...format, standard: read.standard ?? format.standard },
    title,
    documents,
  };
}

/** Reads content files of a package again by the paths a holding gives them; null for what is not there. */
export async function fileReader(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits = {},
): Promise<(path: string) => Uint8Array | null> {
  const opened = await openPackage(name, bytes, platform, limits, () => undefined);
  return (path) => {
    const inner = opened.inner.find((p) => path.startsWith(p.prefix));
    return inner ? inner.read(path.slice(inner.prefix.length)) : opened.read(path);
  };
}
