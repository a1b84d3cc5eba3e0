<script lang="ts">
  import type { DataPeep } from '$lib/shared/types';
  import { bytes as size, plural } from '../format';
  import { fileAddress } from './answers.svelte';

  /** Files of data that a question leads to: their first rows, and the whole to take away. */
  let { files, paths }: { files: string; paths: readonly string[] } = $props();
  const data = $derived(paths.filter((p) => /\.(?:csv|tsv|tab|dat|txt)$/iu.test(p)));
  const MOST = 5;
  async function peep(path: string): Promise<DataPeep> {
    const response = await fetch(`${files.replace(/file$/u, 'peep')}?path=${encodeURIComponent(path)}`);
    if (!response.ok) throw new Error('The file could not be fetched.');
    return (await response.json()) as DataPeep;
  }
  const nameOf = (path: string): string => path.slice(path.lastIndexOf('/') + 1);
</script>

{#each data.slice(0, MOST) as path (path)}
  <section class="border-hair mt-3 border-t pt-2" aria-label="Data file {nameOf(path)}">
    {#await peep(path)}<p class="text-quiet text-[13px]">{nameOf(path)}…</p>
    {:then { rows, lines, columns, bytes }}
      <p class="text-[13px]">
        <b>{nameOf(path)}</b>
        <span class="text-quiet">{plural(lines, 'line')}, {size(bytes)}</span>
        <a class="act ml-2" href={fileAddress(files, path)} download={nameOf(path)}>Download</a>
      </p>
      {#if rows.length > 0}<div class="relative mt-1 overflow-x-auto">
          <table class="num text-[12.5px]" data-testid="data-peep">
            <tbody>
              {#each rows as row, n (n)}<tr class="border-hair border-b"
                  >{#each row as cell, c (c)}<td class="py-0.5 pr-4 {n === 0 ? 'text-quiet' : ''}" dir="auto"
                      >{cell}</td
                    >{/each}{#if columns > row.length}<td class="text-quiet">…</td>{/if}</tr
                >{/each}
            </tbody>
          </table>
          {#if lines > rows.length}<p class="text-quiet text-[12.5px]">and {lines - rows.length} more</p>{/if}
        </div>{/if}
    {:catch}<p class="text-brick text-[13px]">{nameOf(path)} could not be fetched.</p>{/await}
  </section>
{/each}
{#if data.length > MOST}<p class="text-quiet mt-1 text-[13px]">
    and {plural(data.length - MOST, 'more file')}
  </p>{/if}
