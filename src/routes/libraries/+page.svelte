<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import ConnectForm from '$lib/ui/ConnectForm.svelte';
  import { live } from '$lib/ui/live.svelte';

  let { data } = $props();
  async function remove(id: string): Promise<void> {
    await fetch(`/api/libraries/${id}`, { method: 'DELETE' });
    await live.reload();
  }
</script>

<Page title="Publishers’ libraries" back={{ href: '/packages', name: 'Packages' }}>
  {#if data.libraries.length > 0}
    <ul class="border-hair bg-surface mb-6 border border-b-0">
      {#each data.libraries as library (library.id)}
        <li class="border-hair flex flex-wrap items-baseline gap-x-4 border-b px-4 py-3">
          <a class="font-serif text-[17px] hover:underline" href="/libraries/{library.id}">{library.name}</a>
          <span class="text-quiet">{library.address}</span>
          <button
            type="button"
            class="act ml-auto"
            aria-label="Disconnect {library.name}"
            onclick={() => remove(library.id)}>Disconnect</button
          >
        </li>
      {/each}
    </ul>
  {/if}
  <ConnectForm
    title="Connect a library"
    hint="It has to speak LTI Resource Search 1.0. Its books are then found here by chapter: test banks to bring into a course, links to put into one. The token is kept encrypted and shown to nobody."
    placeholder="https://library.example.org"
    path="/api/libraries"
  />
</Page>
