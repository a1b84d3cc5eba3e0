import { cartridgeManifest } from '../packages.ts';
import type { ItemSpec } from '../items.ts';
import { bankXml, CARTRIDGE } from '../qti12.ts';
import { zip } from '../zip.ts';
import type { BookQuestion, Chapter } from './question.ts';

/** Chapters of the second edition, which the publisher hands out as cartridges: the last question of each came later. */

function itemSpec(q: BookQuestion, id: string): ItemSpec {
  const common = {
    id,
    stem: `<p>${q.stem}</p>`,
    points: q.points,
    ...(q.topic ? { category: q.topic } : {}),
    ...(q.why ? { feedback: q.why } : {}),
  };
  switch (q.kind) {
    case 'choice':
      return {
        ...common,
        kind: q.right.length > 1 ? 'multiple' : 'single',
        choices: q.choices.map((text, at) => ({ text, right: q.right.includes(at) })),
      };
    case 'truth':
      return {
        ...common,
        kind: 'single',
        choices: [
          { text: 'True', right: q.right },
          { text: 'False', right: !q.right },
        ],
      };
    case 'word':
      return { ...common, kind: 'text', answers: q.answers };
    case 'number':
      return { ...common, kind: 'number', value: q.value, tolerance: q.within, unit: q.unit };
    case 'essay':
      return { ...common, kind: 'essay' };
  }
}

export function chapterCartridge({ number, title, questions }: Chapter): Uint8Array {
  const items = questions.slice(0, -1).map((q, at) => itemSpec(q, `ch${number}-${at + 1}`));
  const name = `Chapter ${number}: ${title}`;
  return zip({
    'imsmanifest.xml': cartridgeManifest(3, name, [
      { id: 'bank', type: 'imsqti_xmlv1p2/imscc_xmlv1p3/question-bank', href: 'bank.xml' },
    ]),
    'bank.xml': bankXml(`chapter-${number}`, items, CARTRIDGE, name),
  });
}
