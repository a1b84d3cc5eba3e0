<script lang="ts">
  import { beforeNavigate, goto } from '$app/navigation';
  import { away } from '../away.svelte';

  // A page that cannot be fetched would take the place of what is on the screen: it waits instead.
  beforeNavigate((navigation) => {
    if (!away.now || navigation.willUnload || !navigation.to) return;
    navigation.cancel();
    away.heading = navigation.to.url.pathname + navigation.to.url.search;
  });
  $effect(() => {
    if (away.now || away.heading === null) return;
    const to = away.heading;
    away.heading = null;
    void goto(to);
  });
</script>

<div role="status" class="sticky top-0 z-50">
  {#if away.now}
    <p class="bg-brick px-6 py-1.5 text-center text-white dark:text-black" data-testid="away">
      The server is not answering. Stay on this page: nothing you typed is lost, and what you did last is done
      when it is back.{away.heading === null ? '' : ' Then the page you chose opens.'}
    </p>
  {/if}
</div>
