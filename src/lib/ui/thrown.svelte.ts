import type { Throwable } from '$lib/shared/trash';
import { ask } from './ask';
import { live } from './live.svelte';

/** What was thrown away last, so that it can be undone where it was done. */
class LastThrown {
  last = $state.raw<{ kind: Throwable; ids: readonly string[]; name: string } | null>(null);
  trouble = $state('');

  /** @param name what the note calls it: its title, or how many there are */
  async away(kind: Throwable, ids: readonly string[], name: string): Promise<void> {
    this.trouble = '';
    const done: string[] = [];
    try {
      for (const id of ids) {
        await ask('/api/trash', { kind, id, back: false });
        done.push(id);
      }
    } catch (error) {
      this.trouble = `${name}: ${(error as Error).message}`;
    }
    this.last = done.length > 0 ? { kind, ids: done, name } : this.last;
    await live.reload();
  }

  async undo(): Promise<void> {
    if (!this.last) return;
    const { kind, ids } = this.last;
    try {
      for (const id of ids) await ask('/api/trash', { kind, id, back: true });
      this.last = null;
    } catch (error) {
      this.trouble = (error as Error).message;
    }
    await live.reload();
  }

  dismiss(): void {
    this.last = null;
    this.trouble = '';
  }
}

export const thrown = new LastThrown();
