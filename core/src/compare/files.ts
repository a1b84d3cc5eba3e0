import equal from 'fast-deep-equal';
import { choicesOf, picturesOf } from '../model/options.ts';
import { interactionsOf } from '../model/visit.ts';
import { composed } from '../model/composed.ts';
import { difference, Differences } from './differences.ts';
import type { FilesSaid } from './said.ts';
import { contentAt, mediaIn, nameIn, type Side } from './side.ts';
import { translate } from './translate.ts';
import type { Difference } from './types.ts';

/** A picture where it stands: what it holds, and what is said for those who do not see it. */
interface Placed {
  readonly content: string;
  readonly alt: string;
}

/**
 * Files by their bytes, whatever they are called: what stands in the text in its order, what stands in each
 * choice, and whatever else an item refers to. Alternative texts of choices are part of what they say.
 */
export function compareFiles(source: Side, arrived: Side): Difference[] {
  if (source.item.files.length === 0 && arrived.item.files.length === 0) return [];
  const [left, right] = [placed(source), placed(arrived)];
  const same =
    equal(contents(left), contents(right)) &&
    equal(inAll(source), inAll(arrived)) &&
    choicesAlike(source, arrived);
  if (!same) return [difference('files', filesSaid(source), arrivedSaid(source, arrived))];
  const out = new Differences();
  out.add('files', alternatives(left), alternatives(right));
  return out.list;
}

const contents = (list: readonly Placed[]): string[] => list.map((p) => p.content);

/** Pictures of the text, then those that interactions stand on. */
function placed({ item, files }: Side): Placed[] {
  const inChoices = new Set(choicesOf(item).flatMap((c) => mediaIn(c.content)));
  const inText = [...item.stimuli.flatMap((s) => mediaIn(s.content)), ...mediaIn(item.body)];
  return [
    ...inText
      .filter((m) => !inChoices.has(m))
      .map((m) => ({ content: contentAt(m.attrs['src']!, files), alt: composed(m.attrs['alt'] ?? '') })),
    ...interactionsOf(item)
      .flatMap(picturesOf)
      .map((p) => ({ content: contentAt(p.src, files), alt: composed(p.alt) })),
  ];
}

/** Contents of everything an item refers to. */
const inAll = ({ item, files }: Side): string[] => item.files.map((f) => files(f.path) ?? 'missing').sort();

/** Whether each choice shows the bytes that the choice answering to it shows. */
function choicesAlike(source: Side, arrived: Side): boolean {
  const { choices } = translate(source, arrived);
  const shown = ({ item, files }: Side): Map<string, string> =>
    new Map(
      choicesOf(item).map((c) => [
        c.id,
        mediaIn(c.content)
          .map((m) => contentAt(m.attrs['src']!, files))
          .join(),
      ]),
    );
  const [left, right] = [shown(source), shown(arrived)];
  return [...choices].every(([a, b]) => (left.get(a) ?? '') === (right.get(b) ?? ''));
}

const filesSaid = ({ item }: Side): FilesSaid => ({
  files: item.files.map(({ path, present }) => ({ path, present })),
});

/** As they arrived, marked where a file is called the same and holds something else. */
function arrivedSaid(source: Side, arrived: Side): FilesSaid {
  const before = new Map(source.item.files.map((f) => [nameIn(f.path), source.files(f.path)]));
  return {
    files: arrived.item.files.map(({ path, present }) => {
      const was = before.get(nameIn(path));
      const changed = present && typeof was === 'string' && was !== arrived.files(path);
      return changed ? { path, present, changed } : { path, present };
    }),
  };
}

const alternatives = (list: readonly Placed[]): FilesSaid => ({ alternatives: list.map((p) => p.alt) });
