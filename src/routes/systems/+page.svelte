<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import { TARGET_NAMES } from '$lib/shared/stages';
  import { ask } from '$lib/ui/ask';
  import { live } from '$lib/ui/live.svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import { plural, when } from '$lib/ui/format';

  let { data } = $props();
  let address = $state('');
  let token = $state('');
  let trouble = $state('');
  let busy = $state(false);

  async function connect(event: SubmitEvent): Promise<void> {
    event.preventDefault();
    busy = true;
    try {
      await ask('/api/systems', { address, token });
      address = token = trouble = '';
    } catch (error) {
      trouble = (error as Error).message;
    }
    busy = false;
    await live.reload();
  }
  async function remove(id: string): Promise<void> {
    await fetch(`/api/systems/${id}`, { method: 'DELETE' });
    await live.reload();
  }
</script>

<Page title="Course systems" back={{ href: '/courses', name: 'Courses' }}>
  {#snippet actions()}{#if data.systems.length > 0}<Button
        color="alternative"
        onclick={() => fetch('/api/systems', { method: 'PUT' })}>Refresh all</Button
      >{/if}{/snippet}
  {#if data.systems.length > 0}
    <ul class="border-hair bg-surface mb-6 border border-b-0">
      {#each data.systems as s (s.id)}
        <li class="border-hair border-b px-4 py-3">
          <div class="flex flex-wrap items-baseline gap-x-4">
            <h2 class="font-serif text-[17px]">{s.name}</h2>
            <span class="text-quiet">{s.address}</span>
            <span class="num text-quiet">{plural(s.courses, 'course')}</span>
            <button
              type="button"
              class="act ml-auto"
              aria-label="Disconnect {s.name}"
              onclick={() => remove(s.id)}>Disconnect</button
            >
          </div>
          <p class="text-quiet text-[13px]">
            With the token of {s.about.user.name}, {s.about.user.role === 'administrator'
              ? 'who sees all courses'
              : 'who can see their own and shared courses'}. Imports {s.about.takes
              .map((t) => TARGET_NAMES[t])
              .join(', ')}.
            {s.syncedAt ? `Refreshed ${when(s.syncedAt)}.` : 'Refreshing…'}
          </p>
          {#if s.trouble}<p class="text-brick" role="alert">{s.trouble}</p>{/if}
        </li>
      {/each}
    </ul>
  {/if}
  <section class="border-hair bg-surface max-w-[640px] border px-5 py-4" aria-labelledby="connect">
    <h2 id="connect" class="text-[15px]">Connect a system</h2>
    <p class="text-quiet mt-1">
      It has to speak OneRoster 1.2. The token decides what is seen; it is kept encrypted and shown to nobody.
    </p>
    <form onsubmit={connect} class="mt-3 grid gap-3">
      <label class="grid gap-1"
        >Address <input
          type="url"
          required
          bind:value={address}
          placeholder="https://courses.example.org"
          class="border-hair bg-surface text-ink h-9 rounded border px-2.5"
        /></label
      >
      <label class="grid gap-1"
        >Token <input
          type="password"
          required
          autocomplete="off"
          bind:value={token}
          class="border-hair bg-surface text-ink h-9 rounded border px-2.5"
        /></label
      >
      <div class="flex items-center gap-3">
        <Button type="submit" color="primary" disabled={busy}>Connect</Button>
        {#if trouble}<p class="text-brick" role="alert">{trouble}</p>{/if}
      </div>
    </form>
  </section>
</Page>
