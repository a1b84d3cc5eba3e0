<script lang="ts">
  import OwnBank from '$lib/ui/maker/OwnBank.svelte';

  let { data } = $props();
</script>

{#key data.id}<OwnBank {data} />{/key}
