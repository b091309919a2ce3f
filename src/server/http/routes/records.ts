import { RestoreBody, TakeCopyBody } from '@/contracts/backup';
import { bundleSchema } from '@/contracts/bundle';
import { ImportAskQuery, ImportReport } from '@/contracts/bundle-report';
import { failureOfIssue } from '@/contracts/issues';
import { DocumentReply, HealthReply } from '@/contracts/reads';
import { SheetAnswer, SheetBody, UndoSheetBody } from '@/contracts/sheet';
import { failure, ok } from '@/core/failure/failure';
import { backUp } from '../../services/house/backups';
import { takeInBundle } from '../../services/house/bundle-in';
import { health } from '../../services/house/health';
import { takeInSheet, undoSheet } from '../../services/house/take-in-sheet';
import { app } from '../app';
import { type Handler, signedByOther } from '../endpoint';
import { MAX_BUNDLE_BYTES, MAX_SHEET_BYTES, readBytes } from '../read-json';
import { json, respondProblems } from '../respond';
import { restoreHere } from '../restore';
import { answering, get, getFile, postSite, type Route } from '../route';
import { ACTION } from './example';
import { emptySheet, machineBundle, yardBundle } from './files';

/** The export file is the body, of a type that no form of another site can send. */
const importBundle: Handler = async ({ request, url, locals }) => {
  if (!/^application\/zip\b/i.test(request.headers.get('content-type') ?? ''))
    return respondProblems([failure('bundle.damaged', 'bundle', { where: 'the file' })]);
  const query = ImportAskQuery.safeParse(Object.fromEntries(url.searchParams));
  if (!query.success) return respondProblems(query.error.issues.map(failureOfIssue));
  const other = signedByOther(query.data, locals.person);
  if (other) return respondProblems([other]);
  const bytes = await readBytes(request, MAX_BUNDLE_BYTES);
  if (!bytes.ok) return respondProblems([failure('bundle.too-large', 'bundle')]);
  const taken = await takeInBundle((await app()).context, bytes.value, query.data);
  return taken.ok ? json(taken.value, query.data.dryRun ? 200 : 201) : respondProblems(taken.failures);
};

/** Export, import, spreadsheets, backups and the health of the server. */
export const RECORD_ROUTES: readonly Route[] = [
  getFile(['/api/bundle', 'lead', 'Export everything'], 'application/zip', yardBundle),
  {
    method: 'POST',
    path: '/api/bundle',
    access: 'lead',
    summary: 'Import an export file, or report what that would do',
    query: ImportAskQuery,
    body: { type: 'application/zip' },
    answer: { name: 'ImportReport', schema: ImportReport },
    status: 201,
    example: null,
    handle: importBundle,
  },
  getFile(['/api/machines/{tag}/bundle', 'lead', 'Export one machine with its file'], 'application/zip', machineBundle),
  get(['/api/bundle-schema.json', 'look', 'Read the JSON Schema of an export file'], {
    answer: ['DocumentReply', DocumentReply],
    run: () => Promise.resolve(ok(bundleSchema() as Record<string, unknown>)),
  }),
  getFile(['/api/sheets/{kind}.csv', 'lead', 'Download an empty spreadsheet of a kind'], 'text/csv', emptySheet),
  answering(
    ['/api/sheets', 'lead', 'Import a spreadsheet, or check it'],
    {
      body: ['SheetBody', SheetBody],
      run: (context, _tag, body) => takeInSheet(context, body),
      most: MAX_SHEET_BYTES,
      example: {
        ...ACTION,
        dryRun: true,
        kind: 'parts',
        name: 'parts.csv',
        order: 'dayFirst',
        vouched: false,
        columns: [
          { field: 'code', unit: null },
          { field: 'name', unit: null },
        ],
        rows: [['F-1', 'Main filter']],
      },
    },
    { answer: { name: 'SheetAnswer', schema: SheetAnswer }, reply: (answer) => answer },
  ),
  postSite(['/api/sheets/undo', 'lead', 'Undo the import of a spreadsheet'], {
    body: ['UndoSheetBody', UndoSheetBody],
    run: undoSheet,
    example: { ...ACTION, id: 5 },
  }),
  postSite(['/api/backups', 'lead', 'Make a checked backup'], {
    body: ['TakeCopyBody', TakeCopyBody],
    run: async (context) => {
      const made = await backUp({ ...context, file: (await app()).config.dataFile }, 'asked');
      return made.ok ? ok({ id: 1 }) : made;
    },
    example: ACTION,
  }),
  postSite(['/api/backups/restore', 'lead', 'Restore a backup'], {
    body: ['RestoreBody', RestoreBody],
    run: restoreHere,
    example: { ...ACTION, name: '2026-11-30T06-00-00Z.sqlite' },
  }),
  get(['/api/health', 'anybody', 'Check that the server is up'], {
    answer: ['HealthReply', HealthReply],
    run: async (context) => ok(await health(context)),
  }),
];
