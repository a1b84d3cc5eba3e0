/** What the documents of the tests say, apart from how they are laid out: a test bank in five languages. */

export type Truth =
  | {
      readonly kind: 'choice';
      readonly stem: string;
      readonly choices: readonly string[];
      readonly right: readonly number[];
      readonly points?: number;
      readonly why?: string;
    }
  | { readonly kind: 'truth'; readonly stem: string; readonly right: boolean; readonly points?: number }
  | {
      readonly kind: 'text';
      readonly stem: string;
      readonly right: readonly string[];
      readonly points?: number;
    }
  | {
      readonly kind: 'number';
      readonly stem: string;
      readonly right: number;
      readonly within: number;
      readonly points?: number;
    }
  | { readonly kind: 'essay'; readonly stem: string; readonly model: string; readonly points?: number };

export interface Words {
  readonly language: string;
  readonly rightToLeft?: boolean;
  readonly title: string;
  readonly chapter: (n: number) => string;
  readonly question: string;
  readonly answer: string;
  readonly points: string;
  readonly level: string;
  readonly easy: string;
  readonly hard: string;
  readonly why: string;
  readonly correct: string;
  readonly key: string;
  readonly or: string;
  readonly true: string;
  readonly false: string;
  /** Counters of choices. */
  readonly letters: string;
}
export interface Language {
  readonly words: Words;
  readonly items: readonly Truth[];
}

const choice = (
  stem: string,
  choices: readonly string[],
  right: number | readonly number[],
  more: { points?: number; why?: string } = {},
): Truth => ({
  kind: 'choice',
  stem,
  choices,
  right: typeof right === 'number' ? [right] : right,
  ...more,
});

const LATIN = 'abcdefgh';

export const LANGUAGES: readonly Language[] = [
  {
    words: {
      language: 'en',
      title: 'Coastal Navigation',
      chapter: (n) => `Chapter ${n}: Lights and Tides`,
      question: 'Question',
      answer: 'Answer',
      points: 'points',
      level: 'Difficulty',
      easy: 'easy',
      hard: 'hard',
      why: 'Rationale',
      correct: 'correct',
      key: 'Answer key',
      or: 'or',
      true: 'True',
      false: 'False',
      letters: LATIN,
    },
    items: [
      choice(
        'Which light does a vessel under way show on her port side?',
        ['a green light', 'a red light', 'a white light', 'no light at all'],
        1,
        { points: 2, why: 'Port is red, starboard is green, whatever the vessel is.' },
      ),
      choice('How long is a nautical mile?', ['1609 m', '1852 m', '2000 m'], 1),
      choice(
        'What is the height of the tide measured from?',
        ['chart datum', 'mean sea level', 'the sea bed', 'the highest mark'],
        0,
        { why: 'Soundings and drying heights are given from it as well.' },
      ),
      choice(
        'By which rule does one estimate the tide between high and low water?',
        ['the rule of thirds', 'the rule of twelfths', 'the rule of halves', 'none of these'],
        1,
        { points: 3 },
      ),
      choice(
        'Which of these are needed for a running fix?',
        ['two bearings of one mark', 'the distance run between them', 'a depth sounder', 'a second mark'],
        [0, 1],
        { points: 2 },
      ),
      choice('A bearing of 090 is', ['north.', 'east.', 'south.', 'west.'], 1),
    ],
  },
  {
    words: {
      language: 'es',
      title: 'Navegación costera',
      chapter: (n) => `Capítulo ${n}: Luces y mareas`,
      question: 'Pregunta',
      answer: 'Respuesta',
      points: 'puntos',
      level: 'Dificultad',
      easy: 'fácil',
      hard: 'difícil',
      why: 'Explicación',
      correct: 'correcta',
      key: 'Clave de respuestas',
      or: 'o',
      true: 'Verdadero',
      false: 'Falso',
      letters: LATIN,
    },
    items: [
      choice(
        '¿Qué luz muestra un buque en navegación por su costado de babor?',
        ['una luz verde', 'una luz roja', 'una luz blanca', 'ninguna luz'],
        1,
        { points: 2, why: 'Babor es rojo y estribor es verde, sea cual sea el buque.' },
      ),
      choice('¿Cuánto mide una milla náutica?', ['1609 m', '1852 m', '2000 m'], 1),
      choice(
        '¿Desde dónde se mide la altura de la marea?',
        ['el cero de la carta', 'el nivel medio del mar', 'el fondo', 'la marca más alta'],
        0,
        { why: 'También las sondas se cuentan desde allí.' },
      ),
      choice(
        '¿Con qué regla se estima la marea entre pleamar y bajamar?',
        [
          'la regla de los tercios',
          'la regla de las doceavas partes',
          'la regla de las mitades',
          'ninguna de ellas',
        ],
        1,
        { points: 3 },
      ),
      choice(
        '¿Qué hace falta para una situación por marcaciones sucesivas?',
        ['dos marcaciones de una marca', 'la distancia navegada entre ellas', 'una sonda', 'otra marca'],
        [0, 1],
        { points: 2 },
      ),
      choice('Una demora de 090 es', ['el norte.', 'el este.', 'el sur.', 'el oeste.'], 1),
    ],
  },
  {
    words: {
      language: 'de',
      title: 'Küstennavigation',
      chapter: (n) => `Kapitel ${n}: Lichter und Gezeiten`,
      question: 'Frage',
      answer: 'Antwort',
      points: 'Punkte',
      level: 'Schwierigkeit',
      easy: 'leicht',
      hard: 'schwer',
      why: 'Begründung',
      correct: 'richtig',
      key: 'Lösungen',
      or: 'oder',
      true: 'Richtig',
      false: 'Falsch',
      letters: LATIN,
    },
    items: [
      choice(
        'Welches Licht führt ein Fahrzeug in Fahrt an Backbord?',
        ['ein grünes Licht', 'ein rotes Licht', 'ein weißes Licht', 'kein Licht'],
        1,
        { points: 2, why: 'Backbord ist rot, Steuerbord ist grün, bei jedem Fahrzeug.' },
      ),
      choice('Wie lang ist eine Seemeile?', ['1609 m', '1852 m', '2000 m'], 1),
      choice(
        'Von wo aus wird die Höhe der Gezeit gemessen?',
        ['vom Kartennull', 'vom mittleren Wasserstand', 'vom Grund', 'von der höchsten Marke'],
        0,
        { why: 'Auch die Lotungen werden von dort aus angegeben.' },
      ),
      choice(
        'Mit welcher Regel schätzt man den Wasserstand zwischen Hoch- und Niedrigwasser?',
        ['mit der Drittelregel', 'mit der Zwölftelregel', 'mit der Hälftenregel', 'mit keiner davon'],
        1,
        { points: 3 },
      ),
      choice(
        'Was braucht man für eine Versegelungspeilung?',
        ['zwei Peilungen einer Marke', 'die Strecke dazwischen', 'ein Echolot', 'eine zweite Marke'],
        [0, 1],
        { points: 2 },
      ),
      choice('Eine Peilung von 090 ist', ['Norden.', 'Osten.', 'Süden.', 'Westen.'], 1),
    ],
  },
  {
    words: {
      language: 'ar',
      rightToLeft: true,
      title: 'الملاحة الساحلية',
      chapter: (n) => `الفصل ${n}: الأضواء والمد`,
      question: 'السؤال',
      answer: 'الإجابة',
      points: 'نقاط',
      level: 'الصعوبة',
      easy: 'سهل',
      hard: 'صعب',
      why: 'التفسير',
      correct: 'صحيح',
      key: 'مفتاح الإجابات',
      or: 'أو',
      true: 'صحيح',
      false: 'خطأ',
      letters: 'أبجدهوزح',
    },
    items: [
      choice('أي ضوء تظهره السفينة على جانبها الأيسر؟', ['ضوء أخضر', 'ضوء أحمر', 'ضوء أبيض', 'لا ضوء'], 1, {
        points: 2,
        why: 'الأيسر أحمر والأيمن أخضر في كل سفينة مهما كان نوعها وطولها.',
      }),
      choice('كم طول الميل البحري؟', ['1609 متر', '1852 متر', '2000 متر'], 1),
      choice(
        'من أين يقاس ارتفاع المد؟',
        ['من صفر الخريطة', 'من متوسط سطح البحر', 'من القاع', 'من أعلى علامة'],
        0,
        { why: 'وكذلك الأعماق فهي تقاس من المكان نفسه على كل خريطة.' },
      ),
      choice(
        'بأي قاعدة يقدر المد بين أعلى الماء وأدناه؟',
        ['قاعدة الأثلاث', 'قاعدة الاثني عشر', 'قاعدة الأنصاف', 'لا شيء منها'],
        1,
        { points: 3 },
      ),
      choice(
        'ما الذي يلزم لتعيين الموقع بعلامة واحدة؟',
        ['اتجاهان لعلامة واحدة', 'المسافة بينهما', 'مسبار', 'علامة ثانية'],
        [0, 1],
        { points: 2 },
      ),
      choice('الاتجاه 090 هو', ['الشمال.', 'الشرق.', 'الجنوب.', 'الغرب.'], 1),
    ],
  },
  {
    words: {
      language: 'ja',
      title: '沿岸航法',
      chapter: (n) => `第${n}章 灯火と潮汐`,
      question: '問',
      answer: '正解',
      points: '点',
      level: '難易度',
      easy: '易',
      hard: '難',
      why: '解説',
      correct: '正解',
      key: '解答一覧',
      or: 'または',
      true: '正しい',
      false: '誤り',
      letters: 'アイウエオカキク',
    },
    items: [
      choice('航行中の船が左舷に示す灯火はどれか。', ['緑の灯火', '赤の灯火', '白の灯火', '灯火はない'], 1, {
        points: 2,
        why: 'どの船でも左舷は赤、右舷は緑である。',
      }),
      choice('1海里は何メートルか。', ['1609 m', '1852 m', '2000 m'], 1),
      choice('潮高はどこから測るか。', ['海図の基準面', '平均水面', '海底', '最高の印'], 0, {
        why: '水深も同じ面から測る。',
      }),
      choice(
        '満潮と干潮の間の潮高を見積もる法則はどれか。',
        ['三分の一の法則', '十二分の一の法則', '二分の一の法則', 'どれでもない'],
        1,
        { points: 3 },
      ),
      choice(
        '両測方位法に必要なものはどれか。',
        ['一つの物標の二つの方位', 'その間の航程', '測深機', '第二の物標'],
        [0, 1],
        { points: 2 },
      ),
      choice('方位090は', ['北である。', '東である。', '南である。', '西である。'], 1),
    ],
  },
];

/** Questions without choices, where a layout has a place for their answers. */
export function openItems({ words }: Language): Truth[] {
  switch (words.language) {
    case 'en':
      return [
        { kind: 'truth', stem: 'East is least and west is best.', right: true },
        { kind: 'truth', stem: 'A fathom is a measure of speed.', right: false },
        {
          kind: 'text',
          stem: 'The side of a vessel to the left is called ____.',
          right: ['port', 'larboard'],
          points: 2,
        },
        {
          kind: 'number',
          stem: 'How many miles are run in 3 hours at 14 knots?',
          right: 42,
          within: 0.5,
          points: 2,
        },
        {
          kind: 'essay',
          stem: 'Explain how a fix by three bearings is plotted.',
          model:
            'Each bearing is corrected for variation and deviation, laid off from its mark as a line of ' +
            'position, and the fix is taken where the three lines meet or in the triangle they make.',
          points: 5,
        },
      ];
    case 'es':
      return [
        { kind: 'truth', stem: 'La braza es una medida de velocidad.', right: false },
        { kind: 'truth', stem: 'La milla náutica mide 1852 metros.', right: true },
        {
          kind: 'text',
          stem: 'El costado izquierdo de un buque se llama ____.',
          right: ['babor'],
          points: 2,
        },
        {
          kind: 'number',
          stem: '¿Cuántas millas se navegan en 3 horas a 14 nudos?',
          right: 42,
          within: 0.5,
          points: 2,
        },
        {
          kind: 'essay',
          stem: 'Explique cómo se obtiene una situación por tres demoras.',
          model:
            'Cada demora se corrige, se traza desde su marca como línea de posición, y la situación se toma ' +
            'donde las tres líneas se cortan o dentro del triángulo que forman.',
          points: 5,
        },
      ];
    case 'de':
      return [
        { kind: 'truth', stem: 'Der Faden ist ein Maß der Geschwindigkeit.', right: false },
        { kind: 'truth', stem: 'Eine Seemeile hat 1852 Meter.', right: true },
        { kind: 'text', stem: 'Die linke Seite eines Schiffes heißt ____.', right: ['Backbord'], points: 2 },
        {
          kind: 'number',
          stem: 'Wie viele Seemeilen werden in 3 Stunden bei 14 Knoten gelaufen?',
          right: 42,
          within: 0.5,
          points: 2,
        },
        {
          kind: 'essay',
          stem: 'Erklären Sie, wie ein Ort aus drei Peilungen gezeichnet wird.',
          model:
            'Jede Peilung wird berichtigt, von ihrer Marke aus als Standlinie gezeichnet, und der Ort liegt ' +
            'dort, wo sich die drei Linien schneiden, oder in dem Dreieck, das sie bilden.',
          points: 5,
        },
      ];
    default:
      return [];
  }
}
