<script lang="ts">
  import BothSides from '$lib/ui/quiz/BothSides.svelte';
  import Page from '$lib/ui/shell/Page.svelte';

  let { data } = $props();
</script>

<Page
  title="{data.name}, tried on both sides"
  back={{ href: `/transfers/${data.id}/arrival`, name: data.transfer }}
>
  {#key `${data.id} ${data.quiz}`}<BothSides transferId={data.id} quiz={data.quiz} />{/key}
</Page>
