import { randomUUID } from 'node:crypto';
import type { World } from './world.ts';

/** What people do while the application may be killed, and what has to be true of it afterwards. */

/** Something that was asked for; `taken` once the application has said that it took it. */
export interface Act {
  readonly what: string;
  taken: boolean;
  /** Whether it is asked for again, under the same key, until an answer comes: as pages do. */
  readonly again?: true;
  /** Asks for it; throws where no answer comes. */
  readonly ask: (base: string) => Promise<void>;
  /** What is wrong with it once everything has come to rest. */
  readonly wrong: () => Promise<Wrong[]>;
}

export interface Wrong {
  readonly as: 'lost' | 'doubled';
  readonly what: string;
}

const post = (base: string, path: string, body: unknown, key = randomUUID()): Promise<Response> =>
  fetch(base + path, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'Idempotency-Key': key, Origin: base },
    body: JSON.stringify(body),
  });

async function took(answer: Promise<Response>): Promise<Response> {
  const response = await answer;
  // The whole answer counts: a part of one is none.
  const body = await response.arrayBuffer();
  if (response.status >= 400)
    throw new Error(`${response.status} ${Buffer.from(body).toString().slice(0, 200)}`);
  return new Response(body, { headers: response.headers });
}

/** Compares how often something is there with how often it should be. */
function counted(what: string, has: number, wanted: number, taken: boolean): Wrong[] {
  if (has > wanted) return [{ as: 'doubled', what: `${what}: ${has} instead of ${wanted}` }];
  return has < wanted && taken ? [{ as: 'lost', what: `${what}: ${has} instead of ${wanted}` }] : [];
}

const itemXml = (n: number): string =>
  [
    `<item ident="q${n}" title="Buoy ${n}"><presentation>`,
    `<material><mattext>Which buoy marks channel ${n}?</mattext></material>`,
    '<response_str ident="r"><render_fib/></response_str></presentation>',
    '<resprocessing><outcomes><decvar maxvalue="1"/></outcomes><respcondition>',
    `<conditionvar><varequal respident="r">Number ${n}</varequal></conditionvar><setvar>1</setvar>`,
    '</respcondition></resprocessing></item>',
  ].join('');

const QUESTIONS = 40;

/** A file of forty questions that nobody has brought before. */
export function bringing(world: World): Act {
  const name = `marks-${randomUUID()}.xml`;
  const body = `<questestinterop><!-- ${name} --><objectbank ident="b">${Array.from({ length: QUESTIONS }, (_, n) => itemXml(n)).join('')}</objectbank></questestinterop>`;
  return {
    what: `bring ${name}`,
    taken: false,
    ask: async (base) => {
      const headers = { 'Content-Type': 'application/octet-stream', Origin: base };
      await took(fetch(`${base}/api/packages?name=${name}`, { method: 'POST', headers, body }));
    },
    async wrong(): Promise<Wrong[]> {
      const rows = await world.rows(
        'SELECT p.state, (SELECT count(*) FROM items i WHERE i.reading_id = p.reading_id) AS items FROM packages p WHERE p.name = ?',
        name,
      );
      const whole = rows.filter((r) => r['state'] === 'ready' && r['items'] === QUESTIONS).length;
      return [
        ...counted(`${name} there`, rows.length, 1, this.taken),
        ...counted(`${name} read whole`, whole, 1, this.taken || rows.length > 0),
      ];
    },
  };
}

/** Pairs of courses, moved as one batch; each has a quiz and a bank. */
export function moving(world: World, pairs: readonly number[]): Act & { readonly pairs: readonly number[] } {
  const title = `Batch ${randomUUID()}`;
  return {
    what: title,
    taken: false,
    pairs,
    async ask(base) {
      const batch = {
        title,
        kinds: ['quiz', 'bank'],
        onVersion: 'replace',
        byPosition: true,
        pairs: await Promise.all(
          pairs.map(async (n) => ({
            source: await world.course(`p${n}-old`),
            dest: await world.course(`p${n}-new`),
            kinds: null,
          })),
        ),
      };
      const answer = await took(
        fetch(`${base}/batches/new?/start`, {
          method: 'POST',
          headers: { Accept: 'application/json', Origin: base, 'x-sveltekit-action': 'true' },
          body: new URLSearchParams({ batch: JSON.stringify(batch) }),
        }),
      );
      const said = await answer.text();
      if (!said.includes('redirect')) throw new Error(said.slice(0, 200));
    },
    async wrong(): Promise<Wrong[]> {
      const batches = await world.rows('SELECT id FROM batches WHERE title = ?', title);
      const out = counted(`${title} there`, batches.length, 1, this.taken);
      const begun = batches.length > 0;
      for (const n of pairs) {
        const there = await world.held(`p${n}-new`);
        for (const thing of [`Quiz ${n + 1}`, `Bank ${n + 1}`])
          out.push(
            ...counted(
              `${thing} in its course`,
              there.filter((t) => t.startsWith(thing)).length,
              begun ? 1 : 0,
              begun,
            ),
          );
      }
      if (!begun) return out;
      const id = String(batches[0]!['id']);
      const notices = await world.rows('SELECT text FROM notices WHERE href = ?', `/batches/${id}`);
      out.push(...counted(`notice of ${title}`, notices.length, 1, true));
      const states = await world.rows('SELECT state, trouble FROM batch_pairs WHERE batch_id = ?', id);
      for (const { state, trouble } of states)
        if (state !== 'done')
          out.push({ as: 'lost', what: `a pair of ${title} is ${String(state)}: ${String(trouble)}` });
      const transfers = await world.rows('SELECT id FROM transfers WHERE batch_id = ?', id);
      out.push(...counted(`transfers of ${title}`, transfers.length, pairs.length, true));
      return out;
    },
  };
}

/** Takes back what one transfer of a batch brought; null where that batch was never taken. */
export async function undoing(world: World, pair: number): Promise<Act | null> {
  const [transfer] = await world.rows(
    'SELECT id FROM transfers WHERE dest_course = ?',
    await world.course(`p${pair}-new`),
  );
  if (!transfer) return null;
  const id = String(transfer['id']);
  const act: Act = {
    what: `undo pair ${pair}`,
    taken: false,
    ask: async (base) => void (await took(post(base, `/api/transfers/${id}/do`, { do: 'undo' }))),
    async wrong(): Promise<Wrong[]> {
      const there = await world.held(`p${pair}-new`);
      const notices = await world.rows('SELECT text FROM notices WHERE href = ?', `/transfers/${id}/send`);
      const begun = act.taken || notices.length > 0;
      if (!begun && there.length === 2) return [];
      return [
        ...counted(`things left of pair ${pair}`, there.length, 0, true),
        ...counted(`notice of the undoing of pair ${pair}`, notices.length, 1, true),
      ];
    },
  };
  return act;
}

/** Puts a title right in a package. */
export function editing(world: World, packageId: string, node: string): Act {
  const to = `Title ${randomUUID()}`;
  const key = randomUUID();
  const step = { way: 'hand', edits: [{ op: 'title', node, to }] };
  return {
    what: `edit ${to}`,
    taken: false,
    again: true,
    async ask(base) {
      const answer = await post(base, `/api/packages/${packageId}/edits`, step, key);
      // Killed after the change and before its answer was kept: that it was done is all that is known.
      const known = answer.status === 409 && (await answer.clone().text()).includes('done before');
      if (!known) await took(Promise.resolve(answer));
    },
    async wrong(): Promise<Wrong[]> {
      const steps = await world.rows(
        'SELECT id FROM edit_steps WHERE package_id = ? AND edits LIKE ?',
        packageId,
        `%${to}%`,
      );
      const shown = await world.rows(
        'SELECT i.title FROM packages p JOIN items i ON i.reading_id = p.reading_id WHERE p.id = ? AND i.node_id = ? AND i.title = ?',
        packageId,
        node,
        to,
      );
      return [
        ...counted(`step of ${to}`, steps.length, 1, this.taken),
        ...counted(`${to} shown`, shown.length, steps.length, true),
      ];
    },
  };
}

/** Has a course looked into. */
export async function looking(world: World, classId: string): Promise<Act> {
  const course = await world.course(classId);
  const before = Date.now();
  const act: Act = {
    what: `look into ${classId}`,
    taken: false,
    ask: async (base) =>
      void (await took(post(base, `/api/courses/${encodeURIComponent(course)}/snapshot`, {}))),
    async wrong(): Promise<Wrong[]> {
      const looks = await world.rows(
        'SELECT s.id FROM snapshots s JOIN packages p ON p.id = s.package_id WHERE s.course_id = ? AND s.taken_at >= ? AND p.state = ?',
        course,
        before,
        'ready',
      );
      return counted(act.what, looks.length, 1, act.taken);
    },
  };
  return act;
}
