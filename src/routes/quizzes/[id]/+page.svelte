<script lang="ts">
  import { untrack } from 'svelte';
  import MakerPage from '$lib/ui/maker/MakerPage.svelte';
  import { Maker } from '$lib/ui/maker/maker.svelte';

  let { data } = $props();
  const maker = $derived.by(() => {
    void data.id;
    return untrack(() => new Maker(data));
  });
</script>

{#key data.id}<MakerPage {maker} banks={data.banks} />{/key}
