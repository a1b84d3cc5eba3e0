<script lang="ts">
  import { page } from '$app/state';
</script>

<svelte:head><title>{page.status} · Alforja</title></svelte:head>
<div class="mx-auto max-w-xl px-6 py-16">
  <h1 class="page-title">{page.error?.message ?? 'Something went wrong.'}</h1>
  <p class="text-quiet mt-3">Nothing you brought in was lost. <a class="act" href="/">Back to the desk</a></p>
</div>
