<script lang="ts">
  import Page from '$lib/ui/shell/Page.svelte';
  import SeamPicture from '$lib/ui/help/SeamPicture.svelte';
  import Strap from '$lib/ui/transfer/Strap.svelte';
  import type { StageState } from '$lib/ui/transfer/strap';

  const stages: readonly StageState[] = [
    { stage: 'source', name: 'Source', says: 'a file or a course', done: true },
    { stage: 'contents', name: 'Contents', says: 'what is included', done: true },
    { stage: 'forecast', name: 'Forecast', says: 'what would be lost', done: true },
    { stage: 'landing', name: 'Landing', says: 'name, section, dates', done: true },
    { stage: 'send', name: 'Send', says: 'review and send', done: false },
    { stage: 'arrival', name: 'Arrival', says: 'what differs', done: false },
    { stage: 'receipt', name: 'Receipt', says: 'the proof', done: false },
  ];
  const steps: readonly { readonly name: string; readonly says: string }[] = [
    {
      name: 'Source',
      says: 'Drop a file anywhere, or choose a course. The file is kept as it came and is never changed. Its type is detected from its content, not its extension.',
    },
    {
      name: 'Contents',
      says: 'Tick what to include. A bank that a quiz draws from, a picture or a rubric comes along by itself, and it says why. What is not included is listed beside it.',
    },
    {
      name: 'Forecast',
      says: 'Every format loses something else. Each has its number of losses beside it, and each loss names the questions it is about. Nothing has been written yet.',
    },
    {
      name: 'Landing',
      says: 'In a course: the name, the section, the dates, and what happens if it already exists. Sections are matched by name. Everything arrives hidden unless you say otherwise.',
    },
    {
      name: 'Send',
      says: 'One last review, then it goes. You can leave the page; a notice tells you when it is done. If something stops it, it resumes from there and makes no second copy.',
    },
    {
      name: 'Arrival',
      says: 'The course is read back, or you upload the export it gives you. Both sides are scored with the same answers. Differences can be fixed in the course, sent again, or accepted with a reason.',
    },
    {
      name: 'Receipt',
      says: 'What was sent, what arrived, what differs and who accepted it, with checksums. Print it, or keep it as a page, CSV or JSON.',
    },
  ];
</script>

<Page title="How a transfer works">
  <p class="mb-4 max-w-[760px]">
    A transfer is one page with seven stages. Open any of them at any time; nothing you entered is lost by
    going back.
  </p>
  <div
    class="border-hair bg-surface mb-5 border px-5 pt-4 pb-3"
    role="img"
    aria-label="The seven stages in a row"
  >
    <div aria-hidden="true" inert><Strap {stages} here="contents" base="/help" /></div>
  </div>
  <div class="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] gap-x-8 max-lg:grid-cols-1">
    <ol class="mb-6">
      {#each steps as step, n (step.name)}
        <li class="border-hair grid grid-cols-[96px_1fr] gap-x-3 border-t py-2">
          <span class="font-semibold"><span class="num text-saddle mr-1.5">{n + 1}</span>{step.name}</span>
          <span>{step.says}</span>
        </li>
      {/each}
    </ol>
    <section aria-labelledby="stitches">
      <h2 id="stitches" class="mb-2 text-[15px]">Reading the arrival</h2>
      <p class="mb-2">
        Left what was sent, right what arrived. The thread between them tells how the two hold together.
      </p>
      <SeamPicture />
      <h2 class="mt-5 mb-2 text-[15px]">Words</h2>
      <dl class="grid grid-cols-[96px_1fr] gap-x-3 gap-y-1">
        <dt class="font-semibold">Bank</dt>
        <dd>a named set of questions that quizzes draw from</dd>
        <dt class="font-semibold">Draw</dt>
        <dd>“10 of these 22, 2 points each”: every student gets others</dd>
        <dt class="font-semibold">Package</dt>
        <dd>a file that came in: QTI, Common Cartridge, a rubric</dd>
        <dt class="font-semibold">Finding</dt>
        <dd>something in a file that you should know or decide</dd>
        <dt class="font-semibold">Loss</dt>
        <dd>what a format has no place for</dd>
      </dl>
    </section>
  </div>
  <p class="mt-4">
    To try it, <a class="act" href="/sample.imscc" download>download our sample cartridge</a> and drop it on
    the
    <a class="act" href="/">desk</a>. Press <kbd>?</kbd> on any page for its keys.
  </p>
</Page>
