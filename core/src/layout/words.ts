/**
 * Ordinary words of several languages. They only tip the balance: what a label means is read from its values first,
 * and a document in a language that is not here is read by those alone.
 */

/** What a labelled line says of its item. */
export const ROLES = [
  'key',
  'points',
  'rationale',
  'feedback',
  'hint',
  'accept',
  'tolerance',
  'difficulty',
  'objective',
  'topic',
  'category',
  'page',
  'kind',
  'title',
  /** Of a table only: what counts its rows, and what names the bank they go to. */
  'number',
  'bank',
  'noted',
  'skip',
] as const;
export type Role = (typeof ROLES)[number];

const list = (...words: string[]): ReadonlySet<string> => new Set(words.flatMap((w) => w.split('|')));

const ROLE_WORDS: Readonly<Partial<Record<Role, ReadonlySet<string>>>> = {
  key: list(
    'answer|answers|ans|correct answer|correct answers|right answer|correct|key|answer key',
    'solution|respuesta|respuestas|respuesta correcta|resp|clave|solución|antwort|antworten',
    'richtige antwort|richtig|lösung|réponse|réponses|bonne réponse|corrigé|solution|resposta',
    'resposta correta|gabarito|risposta|risposta corretta|ответ|ответы|правильный ответ',
    'верный ответ|الإجابة|الجواب|الإجابة الصحيحة|答え|正解|解答|答案|정답|antwoord|juiste antwoord',
    'תשובה|תשובה נכונה',
  ),
  points: list(
    'points|point|pts|pt|p|marks|mark|score|worth|puntos|punto|ptos|puntaje|punkte|punkt|pkt',
    'barème|pontos|valor|punti|punteggio|баллы|балл|баллов|балла|النقاط|نقاط|درجة|درجات|点|配点',
    '得点|分|점|punten|נקודות',
  ),
  rationale: list(
    'rationale|explanation|reason|why|comment|justificación|explicación|begründung|erklärung',
    'erläuterung|explication|justification|explicação|justificativa|spiegazione|пояснение',
    'объяснение|التفسير|الشرح|解説|説明|해설|uitleg|הסבר',
  ),
  feedback: list('feedback|general feedback|rückmeldung|retroalimentación|retour|commentaire|обратная связь'),
  hint: list('hint|pista|hinweis|tipp|indice|dica|suggerimento|подсказка|تلميح|ヒント'),
  accept: list(
    'accept|also accept|accepted answers|alternatives|alternative|also|acepta|también|auch',
    'auch richtig|accepter|aceitar|также|принимается',
  ),
  tolerance: list('tolerance|tolerancia|toleranz|tolérance|tolerância|tolleranza|допуск|погрешность|許容'),
  difficulty: list(
    'difficulty|level|dif|diff|dificultad|nivel|schwierigkeit|schwierigkeitsgrad|niveau',
    'difficulté|dificuldade|nível|difficoltà|livello|сложность|уровень|الصعوبة|المستوى|難易度|难度',
    'moeilijkheid|רמה',
  ),
  objective: list(
    'objective|learning objective|obj|lo|outcome|goal|standard|objetivo|lernziel|ziel',
    'objectif|obiettivo|цель|الهدف|学習目標|目標|leerdoel|מטרה',
  ),
  topic: list(
    'topic|top|subject|section|tema|thema|sujet|thème|tópico|argomento|тема|الموضوع|単元|主題|onderwerp|נושא',
  ),
  category: list(
    'category|cat|categoría|kategorie|catégorie|categoria|категория|الفئة|分類|カテゴリ|categorie|קטגוריה',
  ),
  page: list(
    'page|pages|ref|reference|page reference|página|pág|seite|référence|pagina|страница|стр',
    'الصفحة|ページ|頁|עמוד',
  ),
  kind: list('type|kind|question type|tipo|typ|art|fragetyp|genre|тип|вид|النوع|種類|形式|soort|סוג'),
  title: list('title|name|título|titel|titre|titolo|название|العنوان|題名'),
};

/** The role a word speaks for; null for a word that is not known. */
export function roleOfWord(folded: string): Role | null {
  for (const [role, words] of Object.entries(ROLE_WORDS)) if (words.has(folded)) return role as Role;
  return null;
}

const QUESTION_WORDS = list(
  'question|q|item|pregunta|p|frage|f|aufgabe|énoncé|questão|pergunta|domanda|вопрос|в',
  'السؤال|سؤال|س|問|問題|設問|题|题目|问题|문제|vraag|שאלה',
);
/** Whether a word is one for a question. */
export const isQuestionWord = (word: string): boolean => QUESTION_WORDS.has(word.toLowerCase());

/** True and false as they are written, by language: in full, and their short forms. */
const TRUTHS: readonly (readonly [yes: string, no: string, short: string])[] = [
  ['True', 'False', 't f'],
  ['Right', 'Wrong', 'r w'],
  ['Verdadero', 'Falso', 'v f'],
  ['Cierto', 'Falso', 'c f'],
  ['Wahr', 'Falsch', 'w f'],
  ['Richtig', 'Falsch', 'r f'],
  ['Vrai', 'Faux', 'v f'],
  ['Vero', 'Falso', 'v f'],
  ['Verdadeiro', 'Falso', 'v f'],
  ['Waar', 'Onwaar', 'w o'],
  ['Juist', 'Onjuist', 'j o'],
  ['Верно', 'Неверно', 'в н'],
  ['Да', 'Нет', 'д н'],
  ['Правда', 'Ложь', 'п л'],
  ['صح', 'خطأ', 'ص خ'],
  ['صحيح', 'خطأ', 'ص خ'],
  ['صواب', 'خطأ', 'ص خ'],
  ['正しい', '誤り', '正 誤'],
  ['○', '×', '○ ×'],
  ['〇', '✕', '〇 ✕'],
  ['对', '错', '对 错'],
  ['참', '거짓', '참 거짓'],
  ['נכון', 'לא נכון', 'נ ל'],
  ['Yes', 'No', 'y n'],
  ['Sí', 'No', 's n'],
  ['Ja', 'Nein', 'j n'],
  ['Oui', 'Non', 'o n'],
];
const TRUTH_OF = new Map<string, boolean | null>();
for (const [yes, no, short] of TRUTHS) {
  const [y = '', n = ''] = short.split(' ');
  for (const [word, value] of [
    [yes, true],
    [no, false],
    [y, true],
    [n, false],
  ] as const) {
    const folded = word.toLowerCase();
    // "W" is true in one language and wrong in another.
    TRUTH_OF.set(folded, TRUTH_OF.has(folded) && TRUTH_OF.get(folded) !== value ? null : value);
  }
}

const LONGEST_TRUTH = 40;

/** Whether a text is a word for true or for false; null for neither. */
export function truthOf(text: string): boolean | null {
  if (text.length > LONGEST_TRUTH) return null;
  const bare = text
    .toLowerCase()
    .replace(/(?<![.!\s])[.!\s]+$/u, '')
    .trim();
  return TRUTH_OF.get(bare) ?? null;
}

/** The words in full for what is written, by the language it can only be in; in English where nothing tells. */
export function truthWords(written: readonly string[]): readonly [string, string] {
  const met = new Set(written.map((w) => w.toLowerCase().trim()));
  const fits = ([yes, no, short]: (typeof TRUTHS)[number], full: boolean): boolean => {
    const words = full ? [yes.toLowerCase(), no.toLowerCase()] : short.split(' ');
    return met.size > 0 && [...met].every((w) => words.includes(w));
  };
  const found = TRUTHS.find((t) => fits(t, true)) ?? TRUTHS.find((t) => fits(t, false));
  return found ? [found[0], found[1]] : ['True', 'False'];
}

/** Words that say a choice is the right one, where they stand behind it. */
export const CORRECT_WORDS = list(
  'correct|right|key|answer|true|x|correcto|correcta|richtig|korrekt|juste|correct|vrai',
  'correto|correta|corretto|corretta|верно|правильно|صحيح|صح|正解|正|답|juist|goed|נכון|✓|✔|*',
);

/** "each": points that a heading gives to every item below it. */
const EACH_WORDS = [
  'each|apiece|je|jeweils|cada uno|cada una|cada|chacune?|par question|ciascuna?|каждый',
  'каждая|لكل|各|每|per question|elk',
].join('|');
export const EACH = new RegExp(`(?<!\\p{L})(?:${EACH_WORDS})(?!\\p{L})`, 'iu');

/** Words between things that are listed. */
export const AND = /(?<!\s)\s*(?:[,;&+/،、]|(?<!\p{L})(?:and|und|y|e|et|и|و|en|sowie|ו)(?!\p{L}))\s*/iu;
/** Words between things of which any will do. */
export const OR = /(?<!\s)\s*(?:[;|]|\s\/\s|(?<!\p{L})(?:or|oder|o|ou|или|أو|of|または|או)(?!\p{L}))\s*/iu;
