<script lang="ts">
  import type { RoomView } from '$lib/shared/room';
  import { bytes, plural } from '../format';

  /** What a place holds beside items: links, files. */
  let {
    room,
    kind,
  }: {
    room: Pick<RoomView, 'links' | 'files'>;
    kind: 'links' | 'files';
  } = $props();
</script>

{#if kind === 'links'}
  <h2 class="mb-2 text-[15px]">{plural(room.links.length, 'link')}</h2>
  <ul>
    {#each room.links as link, n (n)}<li class="border-hair border-b py-2">
        <span class="font-serif text-[16px]">{link.title}</span>
        <span class="text-quiet">{link.kind === 'web' ? 'web' : 'LTI'} · {link.url}</span>
      </li>{/each}
  </ul>
{:else}
  <h2 class="mb-2 text-[15px]">{plural(room.files.length, 'file')}</h2>
  <table class="w-full text-left">
    <thead class="text-quiet text-[12.5px]"
      ><tr
        ><th class="py-1 font-semibold">Path</th><th class="text-right font-semibold">Size</th><th
          class="pl-6 font-semibold">SHA-256</th
        ></tr
      ></thead
    >
    <tbody
      >{#each room.files as file, n (n)}<tr class="border-hair border-t"
          ><td class="py-1.5">{file.path}</td><td class="num text-right">{bytes(file.bytes)}</td><td
            class="text-quiet pl-6 font-mono text-[12px]">{file.sha256.slice(0, 16)}…</td
          ></tr
        >{/each}</tbody
    >
  </table>
{/if}
