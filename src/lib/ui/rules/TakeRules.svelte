<script lang="ts">
  import { enhance } from '$app/forms';

  /** Rules from another installation, as a file. */
  let form = $state<HTMLFormElement | null>(null);
</script>

<form
  bind:this={form}
  method="POST"
  action="?/take"
  enctype="multipart/form-data"
  use:enhance={() =>
    async ({ update }) =>
      update({ reset: true })}
>
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
