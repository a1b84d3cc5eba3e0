<script lang="ts">
  import { shownName } from '@alforja/core';
  import { plainNames } from '@alforja/core/edit';
  import type { RoomView } from '$lib/shared/room';
  import { bytes, count, plural } from '../format';
  import type { Changes } from './changes.svelte';
  import type { LinkTest } from '$lib/shared/links';
  import { ask } from '../ask';
  import LinkResult from '../links/LinkResult.svelte';
  import Rename from './Rename.svelte';

  /** What a place holds beside items: links, files. Both can go by other names. */
  let {
    room,
    kind,
    changes,
  }: {
    room: Pick<RoomView, 'links' | 'files'>;
    kind: 'links' | 'files';
    changes: Changes;
  } = $props();
  const plain = $derived(plainNames(room.files.map((f) => f.path)));
  const MOST_LISTED = 1000;
  let tests = $state.raw<ReadonlyMap<string, LinkTest>>(new Map());
  let testing = $state(false);
  let trouble = $state('');

  async function test(): Promise<void> {
    [testing, trouble] = [true, ''];
    try {
      const done = await ask<LinkTest[]>(`/api/packages/${changes.packageId}/links`, {});
      tests = new Map(done.map((t) => [t.url, t]));
    } catch (error) {
      trouble = (error as Error).message;
    } finally {
      testing = false;
    }
  }
</script>

{#if changes.trouble}<p class="text-brick mb-2" role="alert">{changes.trouble}</p>{/if}
{#if kind === 'links'}
  <div class="mb-2 flex flex-wrap items-baseline gap-4">
    <h2 class="text-[15px]">{plural(room.links.length, 'link')}</h2>
    <button type="button" class="act text-[13px]" disabled={testing} onclick={test}
      >{testing ? 'Testing…' : 'Test whether they open'}</button
    >
    {#if trouble}<span class="text-brick text-[13px]" role="alert">{trouble}</span>{/if}
  </div>
  <ul>
    {#each room.links as link (link.id)}<li
        class="border-hair flex flex-wrap items-baseline gap-x-3 border-b py-2"
      >
        <span class="font-serif text-[16px]" dir="auto">{link.title}</span>
        <span class="text-quiet min-w-0 truncate">{link.kind === 'web' ? 'web' : 'LTI'} · {link.url}</span>
        <span class="ml-auto flex"
          ><Rename
            value={link.title}
            take={(to) => changes.make('hand', [{ op: 'title', node: link.id, kind: 'link', to }])}
          /></span
        >
        {#if tests.has(link.url)}<span class="basis-full"><LinkResult test={tests.get(link.url)!} /></span
          >{/if}
      </li>{/each}
  </ul>
{:else}
  <div class="mb-2 flex items-baseline gap-4">
    <h2 class="text-[15px]">{plural(room.files.length, 'file')}</h2>
    {#if plain.length > 0}<button
        type="button"
        class="act text-[13px]"
        disabled={changes.busy || changes.reading}
        title={plain
          .slice(0, 20)
          .map((e) => `${e.path} → ${e.to}`)
          .join('\n')}
        onclick={() => changes.make('hand', plain)}
        >Give {plural(plain.length, 'file')} a plain name, without blanks or accents</button
      >{/if}
  </div>
  <table class="w-full text-left">
    <thead class="text-quiet text-[12.5px]"
      ><tr
        ><th class="py-1 font-semibold">Path</th><th class="text-right font-semibold">Size</th><th
          class="pl-6 font-semibold">SHA-256</th
        ><td></td></tr
      ></thead
    >
    <tbody
      >{#each room.files.slice(0, MOST_LISTED) as file (file.path)}<tr class="border-hair border-t"
          ><td class="py-1.5" dir="auto">{shownName(file.path)}</td><td class="num text-right"
            >{bytes(file.bytes)}</td
          ><td class="text-quiet pl-6 font-mono text-[12px]">{file.sha256.slice(0, 16)}…</td><td class="pl-4"
            ><span class="flex justify-end"
              ><Rename
                value={file.path}
                take={(to) => changes.make('hand', [{ op: 'file-name', path: file.path, to }])}
              /></span
            ></td
          ></tr
        >{/each}</tbody
    >
  </table>
  {#if room.files.length > MOST_LISTED}<p class="text-quiet mt-2">
      and {count(room.files.length - MOST_LISTED)} more
    </p>{/if}
{/if}
