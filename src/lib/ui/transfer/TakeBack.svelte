<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import type { Destination, Sending } from '$lib/shared/transfers';
  import { count, plural } from '../format';

  interface Props {
    to: Destination;
    sending: Sending;
    onconfirm: () => void;
  }
  let { to, sending, onconfirm }: Props = $props();
  let asking = $state(false);
  const place = $derived(to.kind === 'course' ? (to.course?.title ?? 'the course') : 'the file');
</script>

<button type="button" class="act ml-auto" onclick={() => (asking = true)}>Take it back…</button>
<Modal bind:open={asking} title="Take it back?" size="sm">
  <p>
    What this transfer made in {place} is taken out there: {plural(sending.created.length, 'thing')}.
    {#if sending.setAside.length > 0}{count(sending.setAside.length)} older ones get their name and place again.{/if}
    What students have begun, the course keeps, and it is said here.
  </p>
  <div class="mt-3 flex gap-3">
    <Button
      size="sm"
      color="primary"
      onclick={() => {
        asking = false;
        onconfirm();
      }}>Take it back</Button
    >
    <Button size="sm" color="alternative" onclick={() => (asking = false)}>Leave it there</Button>
  </div>
</Modal>
