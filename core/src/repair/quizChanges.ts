import type { Edit } from '../edit/schema.ts';
import type { Finding } from '../model/finding.ts';
import type { Quiz } from '../model/holding.ts';
import { plainNumber } from '../model/number.ts';
import { instructionsOf } from '../model/quizzes.ts';
import { sectionName } from './repairer.ts';

/** Changes worth trying on a quiz for one of its losses. */
export function quizChanges(quiz: Quiz, loss: Finding): readonly (readonly Edit[])[] {
  const node = quiz.id;
  const plain: Edit[][] = quiz.test ? [[{ op: 'test-plain', node }]] : [];
  switch (loss.code) {
    case 'loss-settings':
      return loss.params.setting === 'conditions' ? plain : settingChanges(quiz, loss.params.setting);
    case 'loss-draw': {
      const drawn = quiz.sections.flatMap((s, at) => (s.draw ? [{ at, draw: s.draw }] : []));
      return [
        ...drawn.map(({ at, draw }): Edit[] =>
          draw.pool
            .map((id): Edit => ({ op: 'points', node: id, to: draw.pointsEach }))
            .concat([
              { op: 'draw', node, section: sectionName(quiz, at), to: { pointsEach: draw.pointsEach } },
            ]),
        ),
        ...drawn.map(({ at }): Edit[] => [{ op: 'draw-fix', node, section: sectionName(quiz, at) }]),
      ];
    }
    case 'loss-feedback':
      return plain;
    case 'loss-section':
      return [...plain, oneSection(quiz), ...plain.map((p) => [...p, ...oneSection(quiz)])];
    default:
      return [];
  }
}

/** A quiz of one section without a title, in the order in which it is asked now. */
function oneSection(quiz: Quiz): Edit[] {
  const node = quiz.id;
  const [first, ...rest] = quiz.sections.map((_, at) => sectionName(quiz, at));
  if (first === undefined) return [];
  const dropped = rest.map((section): Edit => ({ op: 'section-drop', node, section }));
  return [...dropped, { op: 'section-title', node, section: first, to: '' }];
}

/** What a target has no place for is said in the instructions, and nowhere else. */
function settingChanges(quiz: Quiz, setting: string): Edit[][] {
  const node = quiz.id;
  const { settings } = quiz;
  const said = instructionsOf(quiz);
  const told = (text: string): string => (said === null ? text : `${said}\n${text}`);
  switch (setting) {
    case 'pass-mark':
      return settings.passMark === null
        ? []
        : [
            [
              {
                op: 'settings',
                node,
                to: {
                  passMark: null,
                  instructions: told(`Pass mark: ${plainNumber(settings.passMark)} points.`),
                },
              },
            ],
          ];
    case 'dates': {
      const { opens, closes } = settings;
      const text = [opens ? `Opens ${opens}.` : '', closes ? `Closes ${closes}.` : '']
        .filter((t) => t !== '')
        .join(' ');
      return [[{ op: 'settings', node, to: { opens: null, closes: null, instructions: told(text) } }]];
    }
    case 'shuffle':
      return [[{ op: 'settings', node, to: { shuffleItems: false } }]];
    case 'instructions':
      return said === null ? [] : [[{ op: 'settings', node, to: { instructions: said } }]];
    default:
      return [];
  }
}
