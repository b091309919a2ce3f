import { MACHINE_KIND_NAMES } from '@/core/machine/kinds';
import { readdirSync, readFileSync, statSync } from 'node:fs';
import { dirname, join, normalize, relative } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';

const SRC = join(process.cwd(), 'src');

const below = (folder: string): string[] =>
  readdirSync(folder).flatMap((name) => {
    const path = join(folder, name);
    return statSync(path).isDirectory() ? below(path) : [path];
  });

const files = below(SRC).filter((f) => /\.(ts|tsx|astro)$/.test(f));
const rel = (file: string): string => relative(SRC, file).replaceAll('\\', '/');

/** Frontmatter of an .astro file, or the whole of a script. */
const scriptOf = (file: string): string => {
  const text = readFileSync(file, 'utf8');
  return file.endsWith('.astro') ? (/^---\n([\s\S]*?)\n---/.exec(text)?.[1] ?? '') : text;
};

interface Import {
  readonly from: string;
  readonly to: string;
  readonly typeOnly: boolean;
}

const importsOf = (file: string): Import[] => {
  const source = ts.createSourceFile(file, scriptOf(file), ts.ScriptTarget.Latest, true);
  return source.statements.flatMap((s) => {
    if (
      !(ts.isImportDeclaration(s) || ts.isExportDeclaration(s)) ||
      !s.moduleSpecifier ||
      !ts.isStringLiteral(s.moduleSpecifier)
    )
      return [];
    const to = s.moduleSpecifier.text;
    const typeOnly = ts.isImportDeclaration(s)
      ? s.importClause?.phaseModifier === ts.SyntaxKind.TypeKeyword ||
        (!!s.importClause?.namedBindings &&
          ts.isNamedImports(s.importClause.namedBindings) &&
          !s.importClause.name &&
          s.importClause.namedBindings.elements.every((e) => e.isTypeOnly))
      : s.getText(source).startsWith('export type');
    const target = to.startsWith('@/')
      ? to.slice(2)
      : to.startsWith('.')
        ? rel(normalize(join(dirname(file), to)))
        : to;
    return [{ from: rel(file), to: target, typeOnly }];
  });
};

const imports = files.flatMap(importsOf);

/** Packages the core may use, one by one: distributions and calendar arithmetic. */
const CORE_PACKAGES = [
  '@stdlib/stats-base-dists-t-cdf',
  '@stdlib/stats-base-dists-t-quantile',
  '@stdlib/stats-base-dists-binomial-cdf',
  '@stdlib/stats-base-dists-beta-quantile',
  'fuse.js',
  '@stdlib/stats-base-dists-chisquare-quantile',
  '@stdlib/stats-base-dists-normal-cdf',
  '@stdlib/stats-base-dists-normal-quantile',
  '@stdlib/stats-base-dists-negative-binomial-quantile',
  '@stdlib/stats-base-dists-poisson-quantile',
  '@date-fns/utc',
  'date-fns',
];

/** Where the core says in which word a figure is put: messages ask it and write the sentence. */
const SAID_BY_THE_CORE: readonly RegExp[] = [
  /^core\/forecast\/(overdue|probably-past)$/,
  /^core\/interval\/(stage-)?due-word$/,
  /^core\/numeric\/chance-word$/,
  /^core\/filter\/label-against-train$/,
  /^core\/diagnose\/likely$/,
  /^core\/measure\/(filter-weight|indicator-wait)$/,
  /^core\/path\/(stage-kinds|lifts)$/,
  /^core\/plan\/overflows$/,
  /^core\/stock\/ledger$/,
  /^core\/upgrade\/container$/,
];

/**
 * The core from the ground up: a folder may use what lies below it, and its own. Types too: a type that looks up is a
 * name in the wrong place.
 */
const CORE_ORDER: readonly (readonly string[])[] = [
  ['failure', 'constants', 'numeric'],
  ['units', 'air', 'calendar'],
  ['filter'],
  ['measure', 'dust'],
  ['path'],
  ['interval', 'record', 'people', 'site'],
  ['machine'],
  ['calibrate', 'procedure'],
  ['forecast'],
  ['status'],
  ['diagnose', 'plan'],
  ['stock'],
  ['sheet'],
  ['for-work', 'upgrade'],
  ['deed'],
];

/** Who may import whom. First match wins; `types` may be imported as types only. */
const LAYERS: readonly {
  readonly folder: RegExp;
  readonly may: readonly RegExp[];
  readonly types?: readonly RegExp[];
}[] = [
  { folder: /^core\//, may: [/^core\//, new RegExp(`^(${CORE_PACKAGES.join('|')})$`)] },
  // The lists of names are the core's: schemas are built on them.
  { folder: /^contracts\//, may: [/^contracts\//, /^zod$/, /^core\//] },
  {
    folder: /^messages\//,
    may: [
      /^messages\//,
      /^core\/(units|constants|calendar)\//,
      /^core\/units$/,
      /^core\/dust\/equipment$/,
      ...SAID_BY_THE_CORE,
    ],
    types: [/^core\//, /^contracts\//],
  },
  { folder: /^server\/config/, may: [/^node:/] },
  { folder: /^server\/db\//, may: [/^server\/db\//, /^contracts\//, /^kysely$/, /^better-sqlite3$/, /^node:/] },
  // The open format: out of the tables and into them, whatever they hold.
  {
    folder: /^server\/bundle\//,
    may: [/^server\/(db|bundle)\//, /^contracts\//, /^core\/failure\//, /^(kysely|better-sqlite3|fflate)$/, /^node:/],
    types: [/^zod$/],
  },
  {
    folder: /^server\/repositories\//,
    may: [
      /^server\/(db|repositories)\//,
      /^core\/site\/site$/,
      /^contracts\//,
      /^core\/calendar\//,
      /^core\/machine\/stage-templates$/,
      /^core\/stock\//,
      /^core\/dust\//,
      // Plain SQL, where the query builder lacks a word.
      /^kysely$/,
    ],
    types: [/^core\//, /^zod$/],
  },
  {
    folder: /^server\/services\//,
    may: [
      /^server\/(repositories|services|instruments|bundle)\//,
      // Files beside the records, not their tables.
      /^server\/db\/copies$/,
      /^core\//,
      /^contracts\//,
      /^node:/,
      /^papaparse$/,
      /^(image-size|qrcode|@tarikjabiri\/dxf)$/,
    ],
    types: [/^server\/db\//],
  },
  {
    folder: /^server\/http\//,
    may: [
      /^server\//,
      /^core\/(failure|people|calendar)\//,
      // Examples of the route table.
      /^core\/(machine\/stage-templates|dust\/register)$/,
      /^contracts\//,
      /^messages\//,
      /^ical-generator$/,
      /^node:crypto$/,
    ],
    types: [/^astro$/, /^zod$/],
  },
  // A process of its own that plans large yards, and what asks it.
  { folder: /^server\/planner\//, may: [/^server\/(db|planner|services)\//, /^node:/] },
  { folder: /^server\/instruments\//, may: [/^server\//, /^core\//, /^contracts\//, /^node:/] },
  {
    folder: /^pages\/api\//,
    may: [/^server\/(http|services)\//, /^contracts\//, /^core\/failure/],
    types: [/^astro$/],
  },
  // What a page is made of: words and figures of one view, made on the server; nothing that draws.
  {
    folder: /^view-models\//,
    may: [/^view-models\//, /^(core|contracts|messages)\//, /^server\/(http\/app|services\/)/],
    types: [/^astro$/, /^charts\//],
  },
  {
    folder: /^(pages|layouts|components)\//,
    may: [
      /^server\/(http\/app|services\/)/,
      /^(core|contracts|messages|view-models|islands|ui|charts|components|layouts|styles)\//,
      /^node:crypto$/,
    ],
    types: [/^astro$/],
  },
  {
    folder: /^ui\//,
    may: [/^(core|contracts|messages|ui|workers)\//, /^react$/, /^lucide-react$/, /^date-fns$/],
    types: [/^zod$/],
  },
  {
    folder: /^islands\//,
    may: [
      /^(core|contracts|charts|messages|ui|workers)\//,
      /^react$/,
      /^lucide-react$/,
      /^@dnd-kit\/(core|sortable|utilities)$/,
      // Tables: read as CSV, shown page by page.
      /^(papaparse|@tanstack\/react-table|jsqr)$/,
    ],
    types: [/^view-models\//],
  },
  { folder: /^charts\//, may: [/^charts\//, /^core\/units/, /^echarts/, /^react$/], types: [/^core\//] },
  { folder: /^workers\//, may: [/^(core|contracts|workers)\//] },
  { folder: /^middleware\.ts$/, may: [/^astro:middleware$/, /^server\//, /^core\/failure/] },
];

const islandOf = (path: string): string | null => /^islands\/([^/]+)\//.exec(path)?.[1] ?? null;

/** A core folder that uses one beside or above it. */
const looksUp = ({ from, to }: Import): string | null => {
  const [mine, theirs] = [from, to].map((p) => /^core\/([^/]+)/.exec(p)?.[1] ?? null);
  if (!mine || !theirs || mine === theirs || !from.startsWith('core/')) return null;
  const tier = (folder: string) => CORE_ORDER.findIndex((names) => names.includes(folder));
  return tier(mine) >= 0 && tier(theirs) >= 0 && tier(theirs) < tier(mine) ? null : `${from} looks up to ${to}`;
};

const offence = (i: Import): string | null => {
  const layer = LAYERS.find((l) => l.folder.test(i.from));
  if (!layer) return `${i.from} is in no layer`;
  const up = looksUp(i);
  if (up !== null) return up;
  const own = islandOf(i.from);
  if (own !== null && own === islandOf(i.to)) return null;
  const allowed = layer.may.some((r) => r.test(i.to)) || (i.typeOnly && (layer.types ?? []).some((r) => r.test(i.to)));
  return allowed ? null : `${i.from} imports ${i.to}`;
};

const resolved = (to: string): string | null =>
  [`${to}.ts`, `${to}.tsx`, `${to}/index.ts`, to].map((p) => join(SRC, p)).find((p) => files.includes(p)) ?? null;

describe('who may import whom', () => {
  it('finds the imports at all', () => {
    expect(files.length).toBeGreaterThan(60);
    expect(imports.length).toBeGreaterThan(200);
  });

  it('every import stays inside its layer', () => {
    expect(imports.map(offence).filter((o) => o !== null)).toEqual([]);
  });

  it('sees an offence when there is one', () => {
    expect(offence({ from: 'core/air/density.ts', to: 'zod', typeOnly: false })).not.toBeNull();
    expect(
      offence({ from: 'core/measure/accuracy.ts', to: 'core/path/pressure-profile', typeOnly: true }),
    ).not.toBeNull();
    expect(offence({ from: 'islands/board/View.tsx', to: 'islands/shell/keys', typeOnly: false })).not.toBeNull();
    expect(offence({ from: 'server/services/yard/x.ts', to: 'server/db/connect', typeOnly: false })).not.toBeNull();
  });

  it('has no import cycle, of types either', () => {
    const graph = new Map<string, string[]>();
    for (const i of imports) {
      const target = resolved(i.to);
      if (target) graph.set(i.from, [...(graph.get(i.from) ?? []), rel(target)]);
    }
    const done = new Set<string>();
    const cycles: string[] = [];
    const visit = (node: string, path: readonly string[]) => {
      if (path.includes(node)) cycles.push([...path.slice(path.indexOf(node)), node].join(' -> '));
      else if (!done.has(node)) {
        for (const next of graph.get(node) ?? []) visit(next, [...path, node]);
        done.add(node);
      }
    };
    for (const node of graph.keys()) visit(node, []);
    expect(cycles).toEqual([]);
  });
});

/** What a formula returns: a number, a number that may be none, a number or why there is none, or several. */
const NUMBERS: ReadonlySet<string> = new Set(['number', 'number | null', 'Result<number>', 'readonly number[]']);

/** `Source:` a publication, `Definition:` algebra, `Choice:` our own default with its reason. */
const TAGGED = /\b(?:Source\b|Definition:|Choice:)/;
/** `Valid:` a range, or `Total.`: defined for every input of its type. */
const RANGED = /\bValid\b|validity|\bTotal\./;

describe('the core is pure', () => {
  const core = files.filter((f) => rel(f).startsWith('core/'));

  it.each([
    ['a clock', /\bDate\.now\b|\bnew Date\(\)|\bperformance\./],
    ['chance', /\bMath\.random\b|\bcrypto\b/],
    ['input or output', /\bprocess\.|\bconsole\.|\bfetch\(|\blocalStorage\b/],
  ])('has no %s', (_what, pattern) => {
    expect(core.length).toBeGreaterThan(25);
    expect(core.filter((f) => pattern.test(readFileSync(f, 'utf8'))).map(rel)).toEqual([]);
  });

  it('every exported formula is tagged by its source, definition or choice, and its range is not empty talk', () => {
    const formulas = core.flatMap((f) => {
      const source = ts.createSourceFile(f, readFileSync(f, 'utf8'), ts.ScriptTarget.Latest, true);
      return source.statements.flatMap((s) => {
        const made = ts.isVariableStatement(s) ? s.declarationList.declarations[0]?.initializer : undefined;
        if (!made || !ts.isArrowFunction(made) || !s.getText(source).startsWith('export')) return [];
        const doc =
          /\/\*\*[\s\S]*?\*\//.exec(s.getFullText(source).slice(0, s.getLeadingTriviaWidth(source)))?.[0] ?? '';
        return [{ name: `${rel(f)} ${s.getText(source).slice(13, 40)}`, doc, type: made.type?.getText(source) ?? '' }];
      });
    });
    const numbers = formulas.filter(({ type }) => NUMBERS.has(type));
    const named = formulas.filter(({ name }) => /core\/(air|measure|numeric)\//.test(name));
    expect(numbers.length).toBeGreaterThan(60);
    expect(named.length).toBeGreaterThan(40);
    expect(numbers.filter(({ doc }) => !TAGGED.test(doc) || !RANGED.test(doc)).map((n) => n.name)).toEqual([]);
    expect(named.filter(({ doc }) => !TAGGED.test(doc)).map((n) => n.name)).toEqual([]);
    // A default of our own is not a source, and a range that excludes nothing is no range.
    const vague = core.flatMap((f) =>
      /Source: (?:a )?(?:Moorwind default|modelling choice|sums|algebra)|Valid: any\./.test(readFileSync(f, 'utf8'))
        ? [rel(f)]
        : [],
    );
    expect(vague).toEqual([]);
  });
});

/** Why a file may be longer than 300 lines. Tables of data (`table-...`) need no reason. */
const LONG_BECAUSE: Readonly<Record<string, string>> = {
  'contracts/bundle.ts': 'the published format, table by table: read as one page',
  'core/machine/kinds.ts': 'every fact of each kind, one record a kind: read as one page',
  'core/procedure/prove/effects.ts': 'one effect for each step: read as one table',
  'server/services/jobs/find-case.ts': 'one branch for each thing that is done in a case, all in one transaction',
};

describe('kinds are complete records', () => {
  it('no code compares with the name of a machine kind: what differs is a fact of its record', () => {
    const compares = new RegExp(
      `[=!]==\\s*'(${MACHINE_KIND_NAMES.join('|')})'|case '(${MACHINE_KIND_NAMES.join('|')})':`,
    );
    expect(compares.test("machine.kind === 'hExtractor'")).toBe(true);
    expect(files.filter((f) => compares.test(readFileSync(f, 'utf8'))).map(rel)).toEqual([]);
  });
});

describe('file lengths', () => {
  const lengths = files.map((f) => ({ file: rel(f), lines: readFileSync(f, 'utf8').split('\n').length }));

  it('a file of more than 300 lines has its reason, none has more than 500, and half have 120 or less', () => {
    const code = lengths.filter((l) => !/\/table-/.test(l.file));
    expect(code.filter((l) => l.lines > 300 && !(l.file in LONG_BECAUSE)).map((l) => l.file)).toEqual([]);
    expect(Object.keys(LONG_BECAUSE).filter((f) => !code.some((l) => l.file === f && l.lines > 300))).toEqual([]);
    expect(code.filter((l) => l.lines > 500)).toEqual([]);
    const sorted = lengths.map((l) => l.lines).sort((a, b) => a - b);
    expect(sorted[Math.floor(sorted.length / 2)]).toBeLessThanOrEqual(120);
  });
});
