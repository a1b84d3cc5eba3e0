import type { ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { mkdtemp, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { createClient } from '@libsql/client';
import { startServer } from '../../scripts/server.mjs';
import { quayside } from '../../standins/data.ts';
import { CourseSystem } from '../../standins/system.ts';

/** The built application on a data folder of its own beside a simulated course system, to be killed at any moment. */

export type Row = Readonly<Record<string, unknown>>;

const TOKEN = { Authorization: 'Bearer demo-coordinator' };
const ITEMS = 14;

export class World {
  /** Processes of the application that run now, by port. */
  readonly #children = new Map<number, ChildProcess>();

  private constructor(
    readonly data: string,
    readonly system: CourseSystem,
    readonly ports: readonly number[],
    readonly pairs: number,
  ) {}

  /**
   * @param ports the application runs once for each, on the same folder
   * @param pairs courses of an old and a new term that can go as a batch
   */
  static async open(ports: readonly number[], pairs: number): Promise<World> {
    const data = await mkdtemp(join(tmpdir(), 'alforja-kills-'));
    const programme = { pairs, items: ITEMS };
    const system = await new CourseSystem(await quayside({ port: 0, folder: null, programme })).start();
    const world = new World(data, system, ports, pairs);
    await world.#begin().catch(async (error: unknown) => {
      await world.close();
      throw error;
    });
    return world;
  }

  /** Starts the first process, and connects the course system. */
  async #begin(): Promise<void> {
    await this.start(this.ports[0]!);
    const connected = await fetch(`${this.base()}/api/systems`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', Origin: this.base() },
      body: JSON.stringify({ address: this.system.address, token: 'demo-coordinator' }),
    });
    if (!connected.ok) throw new Error(await connected.text());
    for (let n = 0; (await this.rows('SELECT 1 FROM courses LIMIT 1')).length === 0; n++) {
      if (n > 600) throw new Error('The courses of the system were not listed within a minute.');
      await wait(100);
    }
  }

  base(port = this.ports[0]!): string {
    return `http://127.0.0.1:${port}`;
  }

  async start(port: number): Promise<void> {
    const { child } = await startServer({ port, data: this.data, quiet: true, inside: '127.0.0.1' });
    this.#children.set(port, child);
  }

  /** Ends a process; one that is killed has no say in it. @returns how it ended */
  async stop(port: number, signal: NodeJS.Signals): Promise<number | NodeJS.Signals | null> {
    const child = this.#children.get(port);
    this.#children.delete(port);
    if (!child || child.exitCode !== null || child.signalCode !== null) return child?.exitCode ?? null;
    const gone = once(child, 'exit');
    child.kill(signal);
    await gone;
    return child.exitCode ?? child.signalCode;
  }

  /** Whether a process has ended though nobody ended it. */
  get fallen(): number[] {
    return [...this.#children]
      .filter(([, c]) => c.exitCode !== null || c.signalCode !== null)
      .map(([p]) => p);
  }

  async close(): Promise<void> {
    for (const port of this.#children.keys()) await this.stop(port, 'SIGKILL');
    await this.system.stop();
    await rm(this.data, { recursive: true, force: true });
  }

  /** What the database holds, asked beside the application. */
  async rows(sql: string, ...args: (string | number)[]): Promise<Row[]> {
    const client = createClient({ url: `file:${join(this.data, 'alforja.db')}`, timeout: 5000 });
    try {
      return (await client.execute({ sql, args })).rows.map((row) => ({ ...row }));
    } finally {
      client.close();
    }
  }

  /** Titles of the things a course holds, asked of its system. */
  async held(classId: string): Promise<string[]> {
    const response = await fetch(`${this.system.address}/contents/v1/classes/${classId}/outline`, {
      headers: TOKEN,
    });
    return ((await response.json()) as { things: { title: string }[] }).things.map((t) => t.title).sort();
  }

  /** The id of a course of the connected system. */
  async course(classId: string): Promise<string> {
    const [row] = await this.rows('SELECT id FROM courses WHERE class_id = ?', classId);
    return String(row!['id']);
  }
}
