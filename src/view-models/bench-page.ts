import type { AstroGlobal } from 'astro';
import { app } from '@/server/http/app';
import { type Bench, loadBench } from '@/server/services/measuring/bench';
import { type Face, loadFace } from '@/server/services/measuring/air-path';
import { machineOnceTagged, type Yard } from '@/server/services/yard/yard';
import { type Choices, readChoices } from './page-context';

export interface BenchPage {
  readonly yard: Yard;
  readonly bench: Bench | null;
  readonly choices: Choices;
  readonly now: string;
}

/** What every page of one machine starts from; the page answers `noMachine` when the bench is null. */
export const benchPage = async (astro: AstroGlobal): Promise<BenchPage> => {
  const { context } = await app();
  const { yard, bench } = await loadBench(context, astro.params['tag'] ?? '');
  return { yard, bench, choices: readChoices(astro.cookies), now: context.now() };
};

/** The props of a machine's first page; the page answers `noMachine` when the face is null. */
export const facePage = async (
  astro: AstroGlobal,
): Promise<{ readonly yard: Yard; readonly face: Face | null; readonly choices: Choices }> => {
  const { context } = await app();
  return { ...(await loadFace(context, astro.params['tag'] ?? '')), choices: readChoices(astro.cookies) };
};

/** The page for a tag that no machine has, with status 404; a tag that a machine had leads to where it is now. */
export const noMachine = async (astro: AstroGlobal): Promise<Response> => {
  const asked = astro.params['tag'] ?? '';
  const now = await machineOnceTagged((await app()).context, asked);
  if (now === null) return astro.rewrite(`/no-machine?tag=${encodeURIComponent(asked)}`);
  const rest = astro.url.pathname.replace(/^\/m\/[^/]+/, '');
  return astro.redirect(`/m/${encodeURIComponent(now)}${rest}${astro.url.search}`);
};
