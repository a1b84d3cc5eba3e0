<script lang="ts">
  import Progress from '../Progress.svelte';
  import X from '@lucide/svelte/icons/x';
  import { bytes, count } from '../format';
  import { live } from '../live.svelte';
  import ThrownNote from './ThrownNote.svelte';

  const names = {
    read: 'Reading',
    send: 'Sending',
    sync: 'Refreshing a system',
    snapshot: 'Reading a course',
    plan: 'Planning',
    undo: 'Removing from the course',
    batch: 'Starting a batch',
  } as const;
  const stop = (id: string): Promise<Response> => fetch(`/api/jobs/${id}`, { method: 'DELETE' });
</script>

<!-- What is under way and what just came in; it stays in sight on every page. -->
<div
  class="no-print fixed right-6 bottom-4 z-40 flex w-[340px] max-w-[calc(100vw-3rem)] flex-col gap-2"
  role="status"
  aria-live="polite"
>
  {#each live.active as job (job.id)}
    <div class="border-hair bg-surface rounded border p-3 shadow-lg">
      <div class="mb-1.5 flex items-baseline gap-2">
        <span class="truncate font-semibold"
          >{job.step || (job.state === 'queued' ? `${names[job.kind]}: waiting` : names[job.kind])}</span
        >
        <span class="num text-quiet ml-auto shrink-0 text-[12.5px]"
          >{job.total > 0 ? `${count(job.done)} of ${count(job.total)}` : ''}</span
        >
        <!-- In a word: a cross puts a note away, and this ends the work. -->
        <button
          type="button"
          class="act -my-1 shrink-0 px-1 py-1"
          onclick={() => stop(job.id)}
          aria-label="Stop: {job.step || names[job.kind]}">Stop</button
        >
      </div>
      <Progress done={job.done} total={job.total} label={job.step || names[job.kind]} />
    </div>
  {/each}
  {#each live.incoming as file (file.key)}
    {#if file.state === 'sending' || file.message}
      <div class="border-hair bg-surface flex items-start gap-2 rounded border p-3 shadow-lg">
        <div class="min-w-0">
          <div class="truncate font-semibold">{file.name}</div>
          <div class={file.state === 'failed' ? 'text-brick' : 'text-quiet'}>
            {#if file.state === 'sending'}<span class="num">{bytes(file.sent)} of {bytes(file.total)}</span>
              <Progress
                done={file.sent}
                total={file.total}
                label="Sending {file.name}"
              />{:else}{file.message}{/if}
            {#if file.state === 'known'}<a class="act" href="/packages/{file.packageId}">Open it</a>{/if}
          </div>
        </div>
        <button
          type="button"
          class="text-quiet hover:text-ink ml-auto"
          onclick={() => live.dismiss(file.key)}
          aria-label="Dismiss the note on {file.name}"><X size={15} /></button
        >
      </div>
    {/if}
  {/each}
  <ThrownNote />
</div>
