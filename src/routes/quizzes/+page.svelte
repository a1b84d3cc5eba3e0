<script lang="ts">
  import { goto } from '$app/navigation';
  import Button from 'flowbite-svelte/Button.svelte';
  import { ask } from '$lib/ui/ask';
  import { plural, when } from '$lib/ui/format';
  import Page from '$lib/ui/shell/Page.svelte';
  import ThrowAway from '$lib/ui/ThrowAway.svelte';

  let { data } = $props();
  let title = $state('');
  let trouble = $state('');
  async function begin(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    try {
      const { id } = await ask<{ id: string }>('/api/made', {
        do: 'quiz',
        title: title.trim() || 'New quiz',
      });
      await goto(`/quizzes/${id}`);
    } catch (problem) {
      trouble = (problem as Error).message;
    }
  }
</script>

<Page title="Quizzes made here">
  {#snippet actions()}
    <form class="flex items-center gap-2" onsubmit={begin}>
      <input
        bind:value={title}
        aria-label="Name of the new quiz"
        placeholder="Name, for example: Midterm"
        maxlength="500"
        dir="auto"
        class="border-hair bg-surface text-ink placeholder:text-quiet h-9 w-[240px] rounded border px-2.5 text-[14px]"
      />
      <Button type="submit" color="primary">New quiz</Button>
    </form>
  {/snippet}
  {#if trouble}<p class="text-brick mb-2" role="alert">{trouble}</p>{/if}
  <p class="text-quiet mb-3 max-w-[760px] text-[13.5px]">
    Quizzes put together here, out of any bank. Those that came in a file or stand in a course are found
    there.
  </p>
  {#if data.quizzes.length === 0}
    <p class="max-w-[640px]">
      No quiz yet. Name one above and take its questions from <a class="act" href="/banks">any bank</a>, one
      by one, as draws, or by a plan.
    </p>
  {:else}
    <ul class="border-hair bg-surface border border-b-0">
      {#each data.quizzes as q (q.id)}<li
          class="border-hair hover:bg-wash grid grid-cols-[minmax(0,1.6fr)_minmax(0,1.4fr)_minmax(0,1fr)_28px] items-center gap-4 border-b px-4 py-2 max-md:grid-cols-1"
        >
          <a class="truncate font-serif text-[16px] hover:underline" dir="auto" href="/quizzes/{q.id}"
            >{q.title || 'Untitled'}</a
          >
          <span class="num text-[13.5px]"
            >{plural(q.fixed, 'question')} by name, {plural(q.draws, 'draw')}, {plural(
              q.sections,
              'section',
            )}</span
          >
          <span class="text-quiet text-[13.5px]"
            >changed {when(q.changedAt)}{#if q.packageId}, <a class="act" href="/packages/{q.packageId}"
                >as a package</a
              >{/if}</span
          >
          <ThrowAway kind="made" id={q.id} name={q.title || 'Untitled'} />
        </li>{/each}
    </ul>
  {/if}
</Page>
