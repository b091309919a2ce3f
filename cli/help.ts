/** Every command: how it is written, in a line each, and what there is to know of it. */
const COMMANDS: Readonly<
  Record<string, { readonly lines: readonly (readonly [string, string])[]; readonly more: string }>
> = {
  calc: {
    lines: [
      ['calc --list', 'the calculations'],
      ['calc NAME --schema', 'the JSON Schema of its input'],
      ['calc NAME < in.json', 'compute; JSON out'],
    ],
    more: 'Quantities go in with their unit ("61 cfm"), and come out in SI. Exit code 1 means refused, with a sentence. Exit code 2 means an unknown command.',
  },
  seed: {
    lines: [['seed', 'write the demo yard into an empty database (MOORWIND_DATA names the file)']],
    more: 'Curlew Reach Boatyard is invented: its people, machines and makers too.',
  },
  rebuild: {
    lines: [['rebuild', 'rebuild the derived data and report what differed']],
    more: 'Exit code 1 where something differed: the records themselves are never touched.',
  },
  backup: {
    lines: [['backup', 'make a checked backup of the records, also beside a running server']],
    more: 'It is read through before it counts, and lies beside the records in FILE.backups: keep some elsewhere too.',
  },
  backups: {
    lines: [['backups', 'list the backups']],
    more: 'Newest first, with why each was taken and what it holds.',
  },
  restore: {
    lines: [['restore NAME [--yes]', 'show the content of a backup and what would be lost; with --yes restore it']],
    more: 'Stop Moorwind first. The replaced records are kept as a backup.',
  },
  export: {
    lines: [
      ['export FILE', 'write everything into one export file (a zip)'],
      ['export --machine TAG FILE', 'write one machine with its file'],
    ],
    more: 'A file that is there is never written over. docs/bundle.md describes the format.',
  },
  import: {
    lines: [['import FILE [--dry-run]', 'take in a bundle; with --dry-run only say what it would do']],
    more: 'Imports everything or nothing. A record that is here already is not imported twice.',
  },
  'check-procedures': {
    lines: [['check-procedures', 'assemble every procedure of every kind of machine, and prove each']],
    more: 'Every kind, stage, method, level of dust and class. Exit code 1 where one is unsafe, with the step and the reason.',
  },
  schema: { lines: [['schema', 'the JSON Schema of a bundle']], more: 'The same as /api/bundle-schema.json.' },
  people: {
    lines: [
      ['people', 'who is on file'],
      ['people lead INITIALS NAME', 'make somebody a lead, and print a code to choose a passphrase with'],
      ['people code INITIALS', 'print a code for a new passphrase, for one who has lost it'],
    ],
    more: 'A code is shown once, and good for one use within seven days.',
  },
};

const WIDE = 28;
const line = ([how, what]: readonly [string, string]): string => `  ${how.padEnd(WIDE)}${what}`;

/** Printed for no command and for an unknown one. */
export const HELP = [
  'moorwind <command>',
  '',
  ...Object.values(COMMANDS).flatMap((c) => c.lines.map(line)),
  '',
  'moorwind <command> --help says more of one. MOORWIND_DATA names the file of records.',
].join('\n');

/** What there is to know of one command; null for one that is not known. */
export const helpOf = (command: string): string | null => {
  const known = Object.hasOwn(COMMANDS, command) ? COMMANDS[command] : undefined;
  return known ? [...known.lines.map(([how, what]) => `moorwind ${how}\n  ${what}`), '', known.more].join('\n') : null;
};

export const COMMAND_NAMES = Object.keys(COMMANDS);
