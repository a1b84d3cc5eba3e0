import type { Bank, ItemRef, Quiz, Section } from '../../model/holding.ts';
import { encodePath, relativePath } from '../../intake/paths.ts';
import { block, escapeText, tag, xmlDocument } from '../../xml/write.ts';
import { WHOLE_TEST_USE } from './names.ts';
import { rootAttributes } from './writeItem.ts';

/** Where an item's file stands. */
export type ItemPath = (id: string) => string | null;

/** One assessmentTest document. */
export function writeTest(quiz: Quiz, path: string, itemPath: ItemPath): string {
  const { attempts, timeLimitMinutes, passMark, instructions } = quiz.settings;
  const maxAttempts = attempts === 'unlimited' ? 0 : attempts;
  const sections = quiz.sections.flatMap((section) => splitSection(section));
  const used =
    sections.length > 0
      ? sections
      : [{ id: `${quiz.id}_section`, title: '', shuffle: false, items: [], draw: null, instructions: null }];
  return xmlDocument(
    block('assessmentTest', rootAttributes({ identifier: quiz.id, title: quiz.title }), [
      block(
        'outcomeDeclaration',
        { identifier: 'SCORE', cardinality: 'single', baseType: 'float', masteryValue: passMark },
        [block('defaultValue', {}, [tag('value', {}, '0')])],
      ),
      timeLimitMinutes === null ? '' : tag('timeLimits', { maxTime: timeLimitMinutes * 60 }),
      block('testPart', { identifier: 'part', navigationMode: 'nonlinear', submissionMode: 'simultaneous' }, [
        maxAttempts === null ? '' : tag('itemSessionControl', { maxAttempts }),
        ...used.map((section, at) => writeSection(section, path, itemPath, at === 0 ? instructions : null)),
      ]),
      block('outcomeProcessing', {}, [
        block('setOutcomeValue', { identifier: 'SCORE' }, [
          block('sum', {}, [
            tag('testVariables', { variableIdentifier: 'SCORE', weightIdentifier: 'WEIGHT' }),
          ]),
        ]),
      ]),
    ]),
  );
}

/** A bank as an assessmentSection document of its own. */
export function writeBank(bank: Bank, path: string, itemPath: ItemPath): string {
  const refs = bank.items.map((item) => ({ item, weight: 1 }));
  return xmlDocument(
    block(
      'assessmentSection',
      rootAttributes({ identifier: bank.id, title: bank.title, visible: true }),
      writeRefs(refs, path, itemPath),
    ),
  );
}

/** selection applies to everything in a section, so fixed items beside a draw get a section of their own. */
function splitSection(section: Section): Section[] {
  const { draw } = section;
  if (!draw) return [section];
  const fixed = section.items.filter((r) => !draw.pool.includes(r.item));
  const drawn = { ...section, items: [] };
  return fixed.length > 0
    ? [
        { ...section, items: fixed, draw: null },
        { ...drawn, id: `${section.id}_draw`, instructions: null },
      ]
    : [drawn];
}

function writeSection(section: Section, path: string, itemPath: ItemPath, wholeTest: string | null): string {
  const { draw } = section;
  const refs: ItemRef[] = draw
    ? draw.pool.map((item, at) => ({ item, weight: draw.weights?.[at] ?? 1 }))
    : [...section.items];
  return block('assessmentSection', { identifier: section.id, title: section.title, visible: true }, [
    draw ? tag('selection', { select: draw.pick, withReplacement: draw.withReplacement ? true : null }) : '',
    section.shuffle ? tag('ordering', { shuffle: true }) : '',
    rubric(wholeTest, WHOLE_TEST_USE),
    rubric(section.instructions, null),
    ...writeRefs(refs, path, itemPath),
  ]);
}

const rubric = (text: string | null, use: string | null): string =>
  text === null
    ? ''
    : block(
        'rubricBlock',
        { view: 'candidate', use },
        text.split('\n').map((line) => tag('p', {}, escapeText(line))),
      );

function writeRefs(refs: readonly ItemRef[], path: string, itemPath: ItemPath): string[] {
  return refs.map(({ item, weight }) => {
    const target = itemPath(item);
    if (target === null) return '';
    const attrs = { identifier: item, href: encodePath(relativePath(path, target)) };
    return weight === 1
      ? tag('assessmentItemRef', attrs)
      : block('assessmentItemRef', attrs, [tag('weight', { identifier: 'WEIGHT', value: weight })]);
  });
}
