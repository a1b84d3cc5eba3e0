import type { RecognisedDocument } from '../formats/draft.ts';
import { detectFile } from '../formats/table.ts';
import type { Platform } from '../intake/platform.ts';
import { idRegistry } from './ids.ts';
import { confirmedBy, refuseEmpty, type ReadLimits } from './open.ts';
import { readFolder } from './readFolder.ts';

/**
 * How each document of questions in a file is understood, in the order they are read; nothing is checked, so that it
 * is quick. Ids of items are those that `readHolding` gives.
 * @throws Refusal when the file cannot be opened
 */
export async function explainDocuments(
  name: string,
  bytes: Uint8Array,
  platform: Platform,
  limits: ReadLimits = {},
): Promise<RecognisedDocument[]> {
  refuseEmpty(name, bytes);
  const seen: RecognisedDocument[] = [];
  const onRecognised = (one: RecognisedDocument): void => void seen.push(one);
  const claim = idRegistry(() => undefined);
  const add = (): void => undefined;
  const whole = await detectFile(bytes, platform);
  if (whole) {
    const { standard } = whole.format;
    if (standard === 'document' || standard === 'table')
      await whole.reader.read(whole.format, bytes, {
        path: name,
        claim,
        add,
        platform,
        layouts: limits.layouts ?? [],
        confirmed: confirmedBy(limits),
        onRecognised,
      });
  } else await readFolder(name, bytes, platform, { ...limits, onRecognised }, claim, add);
  return seen;
}
