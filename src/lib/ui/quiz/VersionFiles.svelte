<script lang="ts">
  import type { QuizHead } from '$lib/shared/quizzes';
  import { quizApi } from './paths';

  /** Versions as files: pages to print, documents, packages. */
  interface Props {
    quiz: QuizHead;
    count: number;
    seed: string;
    names: readonly string[];
  }
  let { quiz, count, seed, names }: Props = $props();
  let size = $state<'A4' | 'Letter'>('A4');
  let large = $state(false);
  let plain = $state(false);
  let answers = $state(true);
  let course = $state('');
  let date = $state('');
  let target = $state('qti2.1');
  const TARGETS = ['qti1.2', 'qti2.1', 'qti2.2', 'qti3.0', 'cc1.3'];
  const TARGET_NAMES: Readonly<Record<string, string>> = {
    'qti1.2': 'QTI 1.2',
    'qti2.1': 'QTI 2.1',
    'qti2.2': 'QTI 2.2',
    'qti3.0': 'QTI 3.0',
    'cc1.3': 'Common Cartridge 1.3',
  };

  const address = $derived((form: string, more: Readonly<Record<string, string>> = {}): string => {
    const asked = new URLSearchParams({ seed, count: String(count), form, size, ...more });
    for (const [name, on] of Object.entries({ large, plain, answers })) if (on) asked.set(name, 'yes');
    if (course.trim()) asked.set('course', course.trim());
    if (date.trim()) asked.set('date', date.trim());
    return `${quizApi(quiz.packageId, quiz.id)}/paper?${asked.toString()}`;
  });
  const field = 'border-hair bg-surface text-ink block h-8 rounded border px-2 text-[14px]';
  const box = 'border-quiet text-agave size-[15px] rounded-sm';
</script>

<section
  class="border-hair mt-5 grid gap-x-10 gap-y-4 border-y py-4 md:grid-cols-[3fr_2fr]"
  aria-label="Files"
>
  <div>
    <h2 class="mb-2 text-[15px]">On paper</h2>
    <div class="flex flex-wrap items-end gap-x-4 gap-y-2">
      <label class="text-quiet text-[12.5px]"
        >Course<input class="{field} w-52" dir="auto" maxlength="300" bind:value={course} /></label
      >
      <label class="text-quiet text-[12.5px]"
        >Date<input class="{field} w-32" dir="auto" maxlength="100" bind:value={date} /></label
      >
      <label class="text-quiet text-[12.5px]"
        >Sheet<select class="{field} py-0 pr-7" bind:value={size}
          ><option>A4</option><option>Letter</option></select
        ></label
      >
    </div>
    <div class="mt-2 flex flex-wrap gap-x-5 gap-y-1 text-[13px]">
      <label class="flex min-h-6 items-center gap-1.5"
        ><input type="checkbox" class={box} bind:checked={answers} /> Answer sheet</label
      >
      <label class="flex min-h-6 items-center gap-1.5"
        ><input type="checkbox" class={box} bind:checked={large} /> Large print</label
      >
      <label class="flex min-h-6 items-center gap-1.5"
        ><input type="checkbox" class={box} bind:checked={plain} /> Plain letters, wide lines</label
      >
    </div>
    <table class="mt-2 text-[13.5px]">
      <caption class="sr-only">Papers and keys</caption>
      <tbody>
        {#each names as version (version)}<tr
            ><th scope="row" class="py-0.5 pr-5 text-left">Version {version}</th>
            {#each ['paper', 'key'] as sheet (sheet)}<td class="py-0.5 pr-4"
                ><a
                  class="act inline-flex min-h-6 items-center"
                  href={address('html', { version, sheet })}
                  target="_blank"
                  rel="noopener"
                  aria-label="{sheet === 'paper' ? 'Paper' : 'Key'} to print, version {version}"
                  >{sheet === 'paper' ? 'Paper' : 'Key'} to print</a
                ></td
              ><td class="py-0.5 pr-6"
                ><a
                  class="act inline-flex min-h-6 items-center"
                  href={address('docx', { version, sheet })}
                  download
                  aria-label="{sheet === 'paper' ? 'Paper' : 'Key'} as docx, version {version}"
                  >{sheet === 'paper' ? 'Paper' : 'Key'} as docx</a
                ></td
              >{/each}</tr
          >{/each}
      </tbody>
    </table>
    <p class="mt-1 text-[13.5px]">
      <a class="act inline-flex min-h-6 items-center" href={address('docx')} download
        >All papers and keys as docx</a
      >
    </p>
  </div>
  <div>
    <h2 class="mb-2 text-[15px]">As packages</h2>
    <p class="text-quiet mb-2 text-[13px]">
      One package a version, with the table of which question stands where.
    </p>
    <div class="flex items-end gap-3">
      <label class="text-quiet text-[12.5px]"
        >Format<select class="{field} py-0 pr-7" bind:value={target}
          >{#each TARGETS as t (t)}<option value={t}>{TARGET_NAMES[t]}</option>{/each}</select
        ></label
      >
      <a class="act inline-flex min-h-8 items-center text-[13.5px]" href={address(target)} download
        >Download them</a
      >
    </div>
  </div>
</section>
