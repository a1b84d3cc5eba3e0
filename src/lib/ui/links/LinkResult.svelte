<script lang="ts">
  import type { LinkTest } from '$lib/shared/links';

  /** What following a link came to: by a sign first, then in words, with every redirect named. */
  let { test }: { test: LinkTest } = $props();
  const WORDS: Readonly<Record<LinkTest['why'], string>> = {
    opens: 'opens',
    'launch-only': 'answers; opens from a course',
    'not-found': 'not found',
    'asks-to-sign-in': 'asks to sign in',
    refused: 'refused',
    'no-answer': 'no answer',
    'no-answer-in-time': 'no answer in time',
    'name-unknown': 'no such server',
    certificate: 'its certificate is not valid',
    'private-address': 'not tested: it leads into a private network',
    'too-many-redirects': 'leads on and on',
    'no-address': 'no web address',
  };
  const good = $derived(test.why === 'opens' || test.why === 'launch-only');
  const unclear = $derived(test.why === 'asks-to-sign-in' || test.why === 'private-address');
  const onward = $derived(test.steps.slice(1).map((s) => s.url));
  const redirected = $derived(onward.length === 0 ? '' : ` · redirected to ${onward.at(-1)}`);
</script>

<span
  class="text-[12.5px] {good ? 'text-agave' : unclear ? 'text-ochre' : 'text-brick'}"
  data-testid="link-result"
  title={onward.join(' → ')}
  ><span aria-hidden="true">{good ? '✓' : unclear ? '?' : '✗'}</span>
  {WORDS[test.why]}{test.status && !good ? ` (${test.status})` : ''}<span class="text-quiet break-all"
    >{redirected}</span
  ></span
>
