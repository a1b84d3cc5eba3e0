import { Command, CommanderError } from 'commander';
import { finding, Refusal } from '@alforja/core';
import { compare } from './compare.ts';
import { convert } from './convert.ts';
import { inspect } from './inspect.ts';
import { backup, clean, restore } from './keeping.ts';
import { mend } from './mend.ts';
import { EXIT, printError, type Exit } from './output.ts';
import { replicas } from './replicas.ts';
import { score } from './score.ts';
import { versions } from './versions.ts';

/**
 * Runs the command line. Never throws and never prints a stack trace.
 * @returns the exit status: 0 done, 1 done with errors found, 2 not done
 */
export async function main(args: readonly string[]): Promise<Exit> {
  const json = args.includes('--json');
  let exit: Exit = EXIT.done;
  const run = (work: Promise<Exit>): Promise<void> => work.then((code) => void (exit = code));
  const program = new Command('alforja')
    .description('Reads, converts, compares and scores assessment packages.')
    .exitOverride()
    .configureOutput({ writeErr: (text) => void (json || process.stderr.write(text)) });
  program
    .command('inspect <file>')
    .description('what is in a file')
    .option('--layout <file>', 'how a document of questions is laid out, as inspect prints it')
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((file: string, options: { json?: boolean; rules?: string; layout?: string }) =>
      run(inspect(file, options)),
    );
  program
    .command('convert <file>')
    .description('the same, or a part of it, in another format')
    .requiredOption('--to <format>', 'format to write')
    .requiredOption('-o, --output <path>', 'file to write')
    .option('--only <id...>', 'ids or titles of what to take; what they need comes along')
    .option('--force', 'replace an existing file')
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((file: string, options) => run(convert(file, options)));
  program
    .command('backup <data>')
    .description('a data folder as it stands now, with the sum of every file; the application may be at work')
    .requiredOption('-o, --output <folder>', 'folder to write, not there yet')
    .option('--force', 'replace what stands there, once the backup is whole')
    .option('--json', 'one JSON document on standard output')
    .action((data: string, options) => run(backup(data, options)));
  program
    .command('restore <backup>')
    .description('a data folder from a backup, every file of it checked')
    .requiredOption('-o, --output <folder>', 'data folder to make: not there yet, or empty')
    .option('--json', 'one JSON document on standard output')
    .action((from: string, options) => run(restore(from, options)));
  program
    .command('clean <data>')
    .description('removes what is over by the rules of retention; the application may be at work')
    .option('--dry-run', 'only say what would be removed')
    .option('--json', 'one JSON document on standard output')
    .action((data: string, options) => run(clean(data, options)));
  program
    .command('compare <source> <arrived>')
    .description('whether what arrived is what was sent, item by item')
    .option('--edits <file>', 'what was to be changed on the way: a list of edits')
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((source: string, arrived: string, options: { json?: boolean; rules?: string; edits?: string }) =>
      run(compare(source, arrived, options)),
    );
  program
    .command('mend <file>')
    .description('puts findings right, applies edits, and writes what comes of it')
    .option('--list', 'only say which repairs there are')
    .option('--yes', 'make repairs by which answers score otherwise, too')
    .option('--code <code...>', 'codes of the findings to repair, or all')
    .option('--edits <file>', 'a list of edits to apply after the repairs')
    .option(
      '--to <format>',
      'format to write, the source’s own otherwise; with it, its losses are repaired too',
    )
    .option('-o, --output <path>', 'file to write')
    .option('--force', 'replace an existing file')
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((file: string, options) => run(mend(file, options)));
  program
    .command('versions <file>')
    .description('versions of a quiz, as packages or on paper with their keys')
    .requiredOption('--quiz <id>', 'id or title of the quiz')
    .requiredOption('--count <n>', 'how many')
    .requiredOption('--seed <text>', 'any text; the same gives the same versions')
    .requiredOption('--to <format>', 'format of packages, or docx or html for paper')
    .requiredOption('-o, --output <folder>', 'folder to write into')
    .option('--page <size>', 'A4 or Letter')
    .option('--large', 'large print')
    .option('--plain', 'plain letters, wide lines')
    .option('--course <name>', 'course named at the head of papers')
    .option('--date <text>', 'date named at the head of papers')
    .option('--force', 'replace existing files')
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((file: string, options) => run(versions(file, options)));
  program
    .command('replicas <file>')
    .description('fixed items made from one with templates, as one bank')
    .requiredOption('--item <id>', 'id or title of the item')
    .requiredOption('--count <n>', 'how many')
    .requiredOption('--seed <text>', 'any text; the same gives the same replicas')
    .requiredOption('--to <format>', 'format to write')
    .requiredOption('-o, --output <path>', 'file to write')
    .option('--force', 'replace an existing file')
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((file: string, options) => run(replicas(file, options)));
  program
    .command('score <file> <item>')
    .description('what an answer scores')
    .option(
      '--response <id=value>',
      'an answer; repeat for several',
      (v: string, had: string[]) => [...had, v],
      [] as string[],
    )
    .option('--rules <file>', 'confirmed readings of private metadata fields')
    .option('--json', 'one JSON document on standard output')
    .action((file: string, item: string, options: { response: string[]; json?: boolean; rules?: string }) =>
      run(score(file, item, options)),
    );
  try {
    await program.parseAsync(args, { from: 'user' });
    return exit;
  } catch (error) {
    if (error instanceof CommanderError) {
      if (error.exitCode === 0) return EXIT.done;
      if (json) printError(new Refusal(finding('usage', 'error', {}, { detail: error.message })), json);
      return EXIT.notDone;
    }
    printError(error, json);
    return EXIT.notDone;
  }
}
