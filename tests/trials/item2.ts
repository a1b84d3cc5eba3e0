import { nameItem, type Pen } from './style.ts';
import { offered, type Choice, type ItemSpec, type Note } from './spec.ts';

/** One assessmentItem in QTI 2's names. */
export class Item2 {
  readonly names: ReturnType<typeof nameItem>;

  constructor(
    private readonly item: ItemSpec,
    private readonly pen: Pen,
  ) {
    const { ask } = item;
    const spots =
      ask.kind === 'spots' ? ask.spots.map((id) => ({ id, text: '', image: null, fixed: false })) : [];
    this.names = nameItem(
      item,
      pen.style,
      [...offered(ask), ...spots],
      ask.kind === 'blanks' ? ask.blanks.length : 1,
    );
  }

  write(): string {
    const { item, pen, names } = this;
    const notes =
      item.notes.length > 0
        ? '<outcomeDeclaration identifier="FEEDBACK" cardinality="multiple" baseType="identifier"/>'
        : '';
    const inBody = item.notes.map((n, at) => ({ n, at, inside: pen.style.chance.maybe(0.3) }));
    const written = inBody.map(({ n, at, inside }) => ({ inside, xml: this.note(n, at, inside) }));
    return pen.tag(
      'assessmentItem',
      {
        xmlns: 'NAMESPACE',
        identifier: names.item,
        title: pen.text(item.title),
        adaptive: false,
        timeDependent: false,
      },
      [
        ...this.declarations(),
        pen.tag(
          'outcomeDeclaration',
          {
            identifier: 'SCORE',
            cardinality: 'single',
            baseType: 'float',
            ...(item.ask.kind === 'essay' || pen.style.chance.maybe() ? { normalMaximum: item.points } : {}),
          },
          item.ask.kind === 'essay' ? null : '<defaultValue><value>0</value></defaultValue>',
        ),
        notes,
        `<itemBody>${this.body()}${written
          .filter((w) => w.inside)
          .map((w) => w.xml)
          .join('')}</itemBody>`,
        this.processing(),
        ...written.filter((w) => !w.inside).map((w) => w.xml),
      ].join(pen.gap()),
    );
  }

  private note(note: Note, at: number, inside: boolean): string {
    const name = inside ? 'feedbackBlock' : 'modalFeedback';
    return this.pen.tag(
      name,
      { outcomeIdentifier: 'FEEDBACK', identifier: `note${at}`, showHide: 'show' },
      this.pen.tag('p', {}, this.pen.text(note.text)),
    );
  }

  private declarations(): string[] {
    const { item, pen, names } = this;
    const { ask } = item;
    const w = names.written;
    const [id] = names.responses;
    const declare = (
      response: string,
      cardinality: string,
      baseType: string,
      correct: readonly string[],
      mapping = '',
    ): string =>
      pen.tag(
        'responseDeclaration',
        { identifier: response, cardinality, baseType },
        `${correct.length > 0 ? `<correctResponse>${correct.map((v) => `<value>${v}</value>`).join('')}</correctResponse>` : ''}${mapping}`,
      );
    const map = (entries: readonly (readonly [string, number])[], lower: boolean): string =>
      `<mapping${lower ? ' lowerBound="0"' : ''} defaultValue="0">${entries.map(([k, v]) => `<mapEntry mapKey="${k}" mappedValue="${v * item.points}"/>`).join('')}</mapping>`;
    switch (ask.kind) {
      case 'choice':
        return [
          declare(
            id!,
            ask.several ? 'multiple' : 'single',
            'identifier',
            ask.right.map(w),
            ask.each
              ? map(
                  Object.entries(ask.each).map(([k, v]) => [w(k), v] as const),
                  true,
                )
              : '',
          ),
        ];
      case 'order':
        return [declare(id!, 'ordered', 'identifier', ask.right.map(w))];
      case 'match':
      case 'gaps':
      case 'associate': {
        const pairs = ask.pairs.map(([a, b]) => `${w(a)} ${w(b)}`);
        return [
          declare(
            id!,
            'multiple',
            ask.kind === 'associate' ? 'pair' : 'directedPair',
            pairs,
            ask.each
              ? map(
                  pairs.map((p) => [p, 1 / pairs.length] as const),
                  false,
                )
              : '',
          ),
        ];
      }
      case 'text':
        return [declare(id!, 'single', 'string', [pen.text(ask.accepted[0]!.text)])];
      case 'part':
        return [declare(id!, 'single', 'string', [])];
      case 'number':
        return [declare(id!, 'single', 'float', [String(ask.value)])];
      case 'blanks':
        return ask.blanks.map((accepted, at) =>
          declare(
            names.responses[at]!,
            'single',
            'string',
            [pen.text(accepted[0]!)],
            `<mapping defaultValue="0">${accepted.map((text) => `<mapEntry mapKey="${pen.text(text)}" mappedValue="${item.points / ask.blanks.length}" caseSensitive="false"/>`).join('')}</mapping>`,
          ),
        );
      case 'spots':
        return [declare(id!, 'single', 'identifier', [w(ask.right)])];
      case 'essay':
        return [declare(id!, 'single', 'string', [])];
    }
  }

  private body(): string {
    const { item, pen, names } = this;
    const { ask } = item;
    const [id] = names.responses;
    const stem = pen.stem(item);
    const choice = (name: string, c: Choice, extra: Readonly<Record<string, number>> = {}): string =>
      pen.tag(
        name,
        { identifier: names.written(c.id), ...(c.fixed ? { fixed: true } : {}), ...extra },
        pen.choice(item, c),
      );
    switch (ask.kind) {
      case 'choice':
        return `${stem}${pen.tag('choiceInteraction', { responseIdentifier: id!, shuffle: ask.shuffle, maxChoices: ask.several ? 0 : 1 }, ask.choices.map((c) => choice('simpleChoice', c)).join(pen.gap()))}`;
      case 'order':
        return `${stem}${pen.tag('orderInteraction', { responseIdentifier: id!, shuffle: false }, ask.choices.map((c) => choice('simpleChoice', c)).join(''))}`;
      case 'associate':
        return `${stem}${pen.tag('associateInteraction', { responseIdentifier: id!, shuffle: false, maxAssociations: 0 }, ask.left.map((c) => choice('simpleAssociableChoice', c, { matchMax: 1 })).join(''))}`;
      case 'match':
        return `${stem}${pen.tag('matchInteraction', { responseIdentifier: id!, shuffle: false, maxAssociations: ask.left.length }, `<simpleMatchSet>${ask.left.map((c) => choice('simpleAssociableChoice', c, { matchMax: 1 })).join('')}</simpleMatchSet><simpleMatchSet>${ask.right.map((c) => choice('simpleAssociableChoice', c, { matchMax: 0 })).join('')}</simpleMatchSet>`)}`;
      case 'gaps':
        return `${stem}${pen.tag('gapMatchInteraction', { responseIdentifier: id!, shuffle: false }, `${ask.left.map((c) => choice('gapText', { ...c, image: null, text: c.text || c.id }, { matchMax: 1 })).join('')}<p>${ask.right.map((c) => `${pen.text(c.text)} ${pen.tag('gap', { identifier: names.written(c.id) })}`).join(' ')}</p>`)}`;
      case 'text':
      case 'part':
      case 'number':
        return `${stem}<p>${pen.tag('textEntryInteraction', { responseIdentifier: id!, expectedLength: 20 })}</p>`;
      case 'blanks':
        return `${stem}<p>${ask.between.map((text, at) => `${pen.text(text)}${at < ask.blanks.length ? `${pen.style.chance.pick([' ', '\n', '<br/>'])}${pen.tag('textEntryInteraction', { responseIdentifier: names.responses[at]!, expectedLength: 20 })} ` : ''}`).join('')}</p>`;
      case 'spots':
        return `${stem}${pen.tag('hotspotInteraction', { responseIdentifier: id!, maxChoices: 1 }, `<object data="${pen.image(ask.image, `${item.id}-map`)}" type="image/png" width="40" height="40">${pen.text(ask.image.alt)}</object>${ask.spots.map((s, at) => pen.tag('hotspotChoice', { identifier: names.written(s), shape: 'rect', coords: `${at * 10},0,${at * 10 + 10},10` })).join('')}`)}`;
      case 'essay':
        return `${stem}${pen.tag('extendedTextInteraction', { responseIdentifier: id!, expectedLines: 8 })}`;
    }
  }

  private variable(at = 0): string {
    return `<variable identifier="${this.names.responses[at]!}"/>`;
  }

  private base(type: string, value: string | number): string {
    return `<baseValue baseType="${type}">${value}</baseValue>`;
  }

  private matches(): string {
    return `<match>${this.variable()}<correct identifier="${this.names.responses[0]!}"/></match>`;
  }

  private accepts(text: string, caseSensitive: boolean, at = 0): string {
    return `<stringMatch caseSensitive="${caseSensitive}">${this.variable(at)}${this.base('string', this.pen.text(text))}</stringMatch>`;
  }

  private inside({ low, high }: { low: number; high: number }): string {
    const middle = (low + high) / 2;
    const half = high - middle;
    const exact = middle - half === low && middle + half === high;
    if (low === high || (exact && this.pen.style.chance.maybe()))
      return low === high
        ? `<equal toleranceMode="exact">${this.base('float', low)}${this.variable()}</equal>`
        : `<equal toleranceMode="absolute" tolerance="${half} ${half}">${this.base('float', middle)}${this.variable()}</equal>`;
    return `<and><gte>${this.variable()}${this.base('float', low)}</gte><lte>${this.variable()}${this.base('float', high)}</lte></and>`;
  }

  /** What holds for the whole answer being right. */
  private full(): string {
    const { ask } = this.item;
    switch (ask.kind) {
      case 'text': {
        const all = ask.accepted
          .filter((a) => a.share === 1)
          .map((a) => this.accepts(a.text, a.caseSensitive));
        return all.length === 1 ? all[0]! : `<or>${all.join('')}</or>`;
      }
      case 'part':
        return `<substring caseSensitive="${ask.caseSensitive}">${this.base('string', this.pen.text(ask.text))}${this.variable()}</substring>`;
      case 'number':
        return this.inside(ask.full);
      case 'blanks':
        return `<and>${ask.blanks.map((accepted, at) => `<or>${accepted.map((text) => this.accepts(text, false, at)).join('')}</or>`).join('')}</and>`;
      default:
        return this.matches();
    }
  }

  private condition(branches: readonly (readonly [string, string])[], otherwise = ''): string {
    const [first, ...rest] = branches;
    return `<responseCondition><responseIf>${first![0]}${first![1]}</responseIf>${rest.map(([when, then]) => `<responseElseIf>${when}${then}</responseElseIf>`).join('')}${otherwise ? `<responseElse>${otherwise}</responseElse>` : ''}</responseCondition>`;
  }

  private set(share: number): string {
    return `<setOutcomeValue identifier="SCORE">${this.base('float', share * this.item.points)}</setOutcomeValue>`;
  }

  private scoring(): string {
    const { ask, points } = this.item;
    const { names } = this;
    const mapped = `<setOutcomeValue identifier="SCORE"><mapResponse identifier="${names.responses[0]!}"/></setOutcomeValue>`;
    switch (ask.kind) {
      case 'choice':
      case 'match':
      case 'gaps':
      case 'associate':
        return ask.each
          ? mapped
          : this.condition([[this.matches(), this.set(1)]], this.pen.style.chance.maybe() ? this.set(0) : '');
      case 'order':
        if (!ask.places) return this.condition([[this.matches(), this.set(1)]]);
        return ask.right
          .map((id, at) =>
            this.condition([
              [
                `<match><index n="${at + 1}">${this.variable()}</index>${this.base('identifier', names.written(id))}</match>`,
                `<setOutcomeValue identifier="SCORE"><sum><variable identifier="SCORE"/>${this.base('float', points / ask.right.length)}</sum></setOutcomeValue>`,
              ],
            ]),
          )
          .join('');
      case 'text':
        return this.condition(
          ask.accepted.map((a) => [this.accepts(a.text, a.caseSensitive), this.set(a.share)] as const),
        );
      case 'number':
        return this.condition([
          [this.inside(ask.full), this.set(1)],
          ...(ask.half ? [[this.inside(ask.half), this.set(0.5)] as const] : []),
        ]);
      case 'blanks':
        return `<setOutcomeValue identifier="SCORE"><sum>${names.responses.map((r) => `<mapResponse identifier="${r}"/>`).join('')}</sum></setOutcomeValue>`;
      case 'essay':
        return '';
      default:
        return this.condition([[this.full(), this.set(1)]]);
    }
  }

  private processing(): string {
    const { item, names } = this;
    if (item.ask.kind === 'essay') return '';
    const notes = item.notes.map((n, at) => {
      const show = `<setOutcomeValue identifier="FEEDBACK"><multiple><variable identifier="FEEDBACK"/>${this.base('identifier', `note${at}`)}</multiple></setOutcomeValue>`;
      if (n.when === 'right') return this.condition([[this.full(), show]]);
      if (n.when !== 'wrong') {
        const id = this.base('identifier', names.written(n.when.choice));
        const several = item.ask.kind === 'choice' && item.ask.several;
        return this.condition([
          [
            several ? `<member>${id}${this.variable()}</member>` : `<match>${this.variable()}${id}</match>`,
            show,
          ],
        ]);
      }
      // An answer not given makes a comparison NULL: "otherwise" holds then, "not" does not.
      return this.condition(
        [
          [
            this.full(),
            '<setOutcomeValue identifier="SCORE"><variable identifier="SCORE"/></setOutcomeValue>',
          ],
        ],
        show,
      );
    });
    return `<responseProcessing>${notes.join('')}${this.scoring()}</responseProcessing>`;
  }
}
