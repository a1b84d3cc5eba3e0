<script lang="ts">
  import { enhance } from '$app/forms';
  import { invalidateAll } from '$app/navigation';
  import { plural } from '../format';

  /** Rules from another installation, as a file. What it came to is its own: no other form of the page writes over it. */
  let form = $state<HTMLFormElement | null>(null);
  let taken = $state<number | null>(null);
  let trouble = $state('');
</script>

<form
  bind:this={form}
  method="POST"
  action="?/take"
  enctype="multipart/form-data"
  class="flex flex-wrap items-center gap-3"
  use:enhance={() =>
    async ({ result, formElement }) => {
      const data = 'data' in result ? result.data : undefined;
      taken = result.type === 'success' ? Number(data?.['taken']) : null;
      trouble =
        result.type === 'success'
          ? ''
          : String(data?.['message'] ?? 'The file could not be taken. Try again.');
      formElement.reset();
      if (taken !== null) await invalidateAll();
    }}
>
  {#if taken !== null}<span role="status">{plural(taken, 'rule')} taken in.</span>{/if}
  {#if trouble}<span class="text-brick" role="alert">{trouble}</span>{/if}
  <label
    class="border-hair bg-surface focus-within:outline-agave hover:bg-band inline-flex h-[30px] cursor-pointer items-center rounded border px-3 text-[13.5px] font-semibold focus-within:outline-2"
  >
    Take in a file…
    <input
      name="file"
      type="file"
      accept=".json,application/json"
      class="sr-only"
      onchange={() => form?.requestSubmit()}
    />
  </label>
</form>
