<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import type { WholeItem } from '$lib/shared/edits';
  import type { AskedAnswer } from './askedKey';
  import type { Changes } from './changes.svelte';

  /** Asks which answer is right, where nothing in the package says so. */
  let {
    packageId,
    seq,
    response,
    changes,
  }: { packageId: string; seq: number; response: string | null; changes: Changes } = $props();
  const group = $props.id();
  let made = $state.raw<typeof import('./askedKey') | null>(null);
  let asked = $state.raw<AskedAnswer | null>(null);
  let ticked = $state<string[]>([]);
  let typed = $state('');
  let trouble = $state('');
  const edit = $derived(made && asked ? made.keyEdit(asked, ticked, typed) : null);

  async function ask(): Promise<void> {
    trouble = '';
    const answer = await fetch(`/api/packages/${packageId}/items/${seq}/whole`).catch(() => null);
    if (!answer?.ok) return void (trouble = 'The item could not be opened. Try again.');
    made ??= await import('./askedKey');
    asked = made.askedAnswer((await answer.json()) as WholeItem, response);
    if (!asked) trouble = 'This takes more than a line: use “Change it” below.';
  }
  function take(event: SubmitEvent): void {
    event.preventDefault();
    if (edit) void changes.make('repair', [edit]);
  }
  function tick(id: string, on: boolean): void {
    ticked = asked?.several ? (on ? [...ticked, id] : ticked.filter((t) => t !== id)) : [id];
  }
</script>

<div class="mt-1 ml-3.5 text-[13.5px]" data-testid="asked">
  {#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
  {#if !asked}<button type="button" class="act" onclick={ask}>Say what is right…</button>
  {:else}
    <form
      class="flex gap-x-3 gap-y-1.5 {asked.choices ? 'flex-col items-start' : 'flex-wrap items-end'}"
      onsubmit={take}
    >
      {#if asked.choices}
        <fieldset class="min-w-0">
          <legend class="text-quiet text-[12.5px]">Right {asked.several ? 'are' : 'is'}</legend>
          {#each asked.choices as choice (choice.id)}<label class="flex min-h-6 items-center gap-2"
              ><input
                type={asked.several ? 'checkbox' : 'radio'}
                name={group}
                checked={ticked.includes(choice.id)}
                onchange={(e) => tick(choice.id, e.currentTarget.checked)}
                class="border-quiet text-agave size-[15px] shrink-0"
              /><span class="font-serif text-[14.5px]" dir="auto">{choice.says}</span></label
            >{/each}
        </fieldset>
      {:else}
        <label class="text-quiet min-w-[220px] grow text-[12.5px]"
          >{asked.number ? 'The right number' : 'Accepted, several apart by |'}<input
            class="border-hair bg-surface text-ink block h-8 w-full rounded border px-2 text-[14px]"
            dir="auto"
            inputmode={asked.number ? 'decimal' : 'text'}
            maxlength="2000"
            bind:value={typed}
          /></label
        >
      {/if}
      <Button type="submit" size="xs" color="alternative" disabled={changes.busy || edit === null}
        >Put right</Button
      >
    </form>
  {/if}
</div>
