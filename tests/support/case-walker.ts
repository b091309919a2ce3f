import type { Page } from 'playwright-core';
import type { CaseSetup } from '@/core/diagnose/case-setup';
import { subjectOf } from '@/core/diagnose/subject';
import { expectedOf, type CaseSubject } from '@/core/diagnose/expected';
import type { Fault } from '@/core/diagnose/fault';
import { operationsOf } from '@/core/diagnose/next-test';
import type { Operation } from '@/core/diagnose/operation';
import { cures, type Repair, REPAIR_KINDS } from '@/core/diagnose/repair';
import type { Interventions } from '@/core/diagnose/signature';
import { testTitle, wordLabel } from '@/messages/find-tests';
import { sayRepair } from '@/messages/repairs';
import { openMigrated } from '@/server/db/connect';
import { findOfTag } from '@/server/services/jobs/find-page';

/** What a machine's cases are weighed on, from the server's own records. */
export const setupOf = async (dataFile: string, tag: string): Promise<CaseSetup> => {
  const db = await openMigrated(dataFile);
  const found = await findOfTag({ db, now: () => new Date().toISOString() }, tag);
  await db.destroy();
  if (!found) throw new Error(`no ${tag}`);
  return found.page.setup;
};

/** Answers the Find page as a machine with hidden faults would, by what the page itself proposes. */
export class CaseWalker {
  readonly bench: CaseSubject;
  readonly seen: string[] = [];
  private interventions: Interventions = { out: [], repairs: [] };

  constructor(
    readonly page: Page,
    readonly setup: CaseSetup,
    readonly faults: readonly Fault[],
  ) {
    this.bench = subjectOf(setup);
  }

  async ready(): Promise<void> {
    await this.page.waitForSelector('html[data-find=ready]', { timeout: 120_000 });
  }

  async open(
    url: string,
    {
      complaint,
      school = 'Best next',
      words = '',
    }: { readonly complaint: string; readonly school?: string; readonly words?: string },
  ): Promise<void> {
    await this.page.goto(url);
    await this.ready();
    await this.page.getByRole('button', { name: new RegExp(`^${complaint}`) }).click();
    await this.page.getByRole('button', { name: new RegExp(`^${school}`) }).click();
    await this.page.getByLabel('In their own words').fill(words);
    await this.page.getByLabel('Initials', { exact: true }).fill('MK');
    await this.page.getByRole('button', { name: 'Open the case' }).click();
    await this.page.waitForSelector('#next-test, #swap');
    await this.ready();
  }

  private operations(): readonly (readonly [string, Operation])[] {
    const { model, traits } = this.setup;
    return operationsOf(model, traits).map((op) => [testTitle(op, model.stages), op] as const);
  }

  private answer(op: Operation): { readonly typed: string | null; readonly label: string } {
    const e = expectedOf(op, this.faults, { interventions: this.interventions, subject: this.bench });
    if (e.kind === 'words')
      return { typed: null, label: wordLabel(op, Object.entries(e.words).sort((a, b) => b[1] - a[1])[0]?.[0] ?? '') };
    const pressure = op.kind === 'sealed' || op.kind === 'stageDp' || op.kind === 'supply';
    return {
      typed:
        op.kind === 'voltage'
          ? `${e.mean.toFixed(0)} V`
          : pressure
            ? `${(e.mean / 1000).toFixed(3)} kPa`
            : `${(e.mean * 1000).toFixed(2)} L/s`,
      label: '',
    };
  }

  /** Chooses a test of one's own; the page may have proposed it already. */
  async pick(title: string): Promise<void> {
    if ((await this.page.locator('#next-test').allInnerTexts()).some((t) => t.trim() === title)) return;
    await this.page.getByRole('button', { name: 'Choose another' }).click();
    await this.page.getByRole('button', { name: new RegExp(`^${title}`) }).click();
  }

  private async settled(act: () => Promise<void>): Promise<void> {
    const lines = await this.page.locator('section[aria-labelledby=log] li').count();
    await act();
    await this.page.waitForFunction(
      (n) => document.querySelectorAll('section[aria-labelledby=log] li').length > n,
      lines,
      { timeout: 120_000 },
    );
    await this.ready();
  }

  /** Answers the test on the card. */
  async test(): Promise<void> {
    const title = (await this.page.locator('#next-test').innerText()).trim();
    const op = this.operations().find(([t]) => t === title)?.[1];
    if (!op) throw new Error(`no test "${title}"`);
    const { typed, label } = this.answer(op);
    this.seen.push(`${title}: ${typed ?? label}`);
    await this.settled(async () => {
      if (typed === null)
        await this.page
          .locator('section[aria-labelledby=next-test]')
          .getByRole('button', { name: new RegExp(`^${label}`) })
          .click();
      else {
        await this.page.getByLabel(/^Reading/).fill(typed);
        await this.page.getByRole('button', { name: 'Record', exact: true }).click();
      }
    });
    if (op.kind === 'takeOut')
      this.interventions = { ...this.interventions, out: [...this.interventions.out, op.position] };
  }

  private async repair(): Promise<void> {
    const title = (await this.page.locator('#repair').innerText()).trim();
    const { stages } = this.setup.model;
    const repair = stages
      .flatMap((_, position) => REPAIR_KINDS.map((kind): Repair => ({ kind, position })))
      .find(
        (r) =>
          sayRepair(r, stages) === title &&
          (r.kind !== 'settings' || stages[r.position]?.kind === 'fan') &&
          (!['serviceFan', 'supply', 'indicator'].includes(r.kind) || stages[r.position]?.kind === 'fan'),
      );
    if (!repair) throw new Error(`no repair "${title}"`);
    const true_ = this.faults.some((f) => cures(repair, f));
    this.seen.push(`REPAIR ${title}: ${true_ ? 'so' : 'not so'}`);
    await this.settled(() => this.page.getByRole('button', { name: true_ ? 'Fault confirmed' : 'Part OK' }).click());
    this.interventions = {
      out: this.interventions.out.filter((p) => p !== repair.position),
      repairs: [...this.interventions.repairs, repair],
    };
  }

  private async swap(): Promise<void> {
    const button = this.page.locator('section[aria-labelledby=swap] .go').first();
    const label = (await button.innerText()).trim();
    this.seen.push(`SWAP ${label}`);
    await this.settled(() => button.click());
    const { stages } = this.setup.model;
    const position = stages.findIndex((s) => new RegExp(`(New|Original|new) ${s.name}\\b`).test(label));
    if (label.startsWith('New'))
      this.interventions = {
        ...this.interventions,
        repairs: [...this.interventions.repairs, { kind: 'newPart', position }],
      };
    if (label.startsWith('Original'))
      this.interventions = {
        ...this.interventions,
        repairs: this.interventions.repairs.filter((r) => r.position !== position),
      };
  }

  private async close(root: string): Promise<void> {
    this.seen.push('CLOSE');
    for (const back of await this.page.getByRole('button', { name: 'It is back in' }).all())
      await this.settled(() => back.click());
    await this.page
      .locator('section[aria-labelledby=close]')
      .getByRole('button', { name: new RegExp(root) })
      .first()
      .click();
    await this.page.getByLabel('In your words').fill('walked by the test');
    await this.page.getByLabel(/^Follow-up/).fill('look again in a month');
    await this.page.getByRole('button', { name: 'Close the case' }).click();
    await this.page.waitForURL('**/cases/*');
  }

  /** Follows the page until the case is closed. */
  async follow(root: string, most = 30): Promise<readonly string[]> {
    for (let i = 0; i < most; i += 1) {
      const has = (id: string) =>
        this.page
          .locator(id)
          .count()
          .then((n) => n > 0);
      if (await has('#close')) {
        await this.close(root);
        return this.seen;
      }
      if (await has('#swap')) await this.swap();
      else if (await has('#repair')) await this.repair();
      else if (await has('#next-test')) await this.test();
      else throw new Error(`nothing to do after ${this.seen.join(' | ')}`);
    }
    throw new Error(`no end after ${this.seen.join(' | ')}`);
  }
}
