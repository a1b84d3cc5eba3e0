<script lang="ts">
  import Button from 'flowbite-svelte/Button.svelte';
  import Modal from 'flowbite-svelte/Modal.svelte';
  import type { Destination, Sending } from '$lib/shared/transfers';
  import { plural } from '../format';

  interface Props {
    to: Destination;
    sending: Sending;
    onconfirm: () => void;
  }
  let { to, sending, onconfirm }: Props = $props();
  let asking = $state(false);
  const place = $derived(to.kind === 'course' ? (to.course?.title ?? 'the course') : 'the file');
</script>

<button type="button" class="act ml-auto" onclick={() => (asking = true)}>Undo the sending…</button>
<Modal bind:open={asking} title="Undo the sending?" size="sm">
  <p>
    What this transfer made in {place} is removed: {plural(sending.created.length, 'thing')}.
    {#if sending.setAside.length > 0}{plural(sending.setAside.length, 'older one')} will be shown again under the
      old name.{/if}
    Work students have started stays and is listed here.
  </p>
  <div class="mt-3 flex gap-3">
    <Button
      color="primary"
      onclick={() => {
        asking = false;
        onconfirm();
      }}>Remove from course</Button
    >
    <Button color="alternative" onclick={() => (asking = false)}>Cancel</Button>
  </div>
</Modal>
