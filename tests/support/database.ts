import { copyFileSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { type Db, openDatabase, openMigrated } from '@/server/db/connect';
import type { Context } from '@/server/services/yard/user-action';
import { seedDemo } from '../../demo/seed';

export const NOW = '2026-11-24T10:00:00.000Z';

let made = 0;

/** The seeded yard is made once a process and copied: making it is the slow part. */
let template: Promise<string> | null = null;

const seedTemplate = async (): Promise<string> => {
  const file = join(mkdtempSync(join(tmpdir(), 'moorwind-unit-')), 'template.sqlite');
  const db = await openMigrated(file);
  await seedDemo(db, { now: NOW, seed: 7 });
  await db.destroy();
  return file;
};

/** A demo yard of its own, at a fixed moment. */
export const demoContext = async (): Promise<Context & { readonly db: Db }> => {
  template ??= seedTemplate();
  const file = `${await template}-${(made += 1)}`;
  copyFileSync(await template, file);
  return { db: openDatabase(file), now: () => NOW };
};

/** An id as the client makes one, new each time. */
export const newId = (): string => `test-action-${String((made += 1)).padStart(6, '0')}`;
