<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import { TARGET_NAMES } from '$lib/shared/stages';
  import ConnectForm from '$lib/ui/ConnectForm.svelte';
  import { live } from '$lib/ui/live.svelte';
  import Button from 'flowbite-svelte/Button.svelte';
  import { plural, when } from '$lib/ui/format';

  let { data } = $props();
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
  <ConnectForm
    title="Connect a system"
    hint="It has to speak OneRoster 1.2. The token decides what is seen; it is kept encrypted and shown to nobody."
    placeholder="https://courses.example.org"
    path="/api/systems"
  />
</Page>
