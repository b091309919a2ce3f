import { fail, failure, ok, type Result } from '../failure/failure';
import type { EditedStage, PathSnapshot } from '../machine/path-edit';
import type { DustHazard } from '../dust/level';
import { STAGE_KINDS, type StageKind } from '../path/stage-kinds';
import type { StageSpec } from '../path/stage-spec';
import { GENERAL_STAGE } from '../machine/stage-templates';
import type { UpgradeChange } from './change';

/** A machine as it would be. */
export interface Upgraded {
  readonly path: PathSnapshot;
  /** The leak that is left, m2; null where nothing is sealed. */
  readonly leakM2: number | null;
}

type Applied = Result<Upgraded>;

const replaced = (path: PathSnapshot, at: number, stage: EditedStage): PathSnapshot => ({
  ...path,
  stages: path.stages.map((s, i) => (i === at ? stage : s)),
});

const inserted = (path: PathSnapshot, before: number, stage: EditedStage): PathSnapshot => ({
  ...path,
  stages: [...path.stages.slice(0, before), stage, ...path.stages.slice(before)],
});

/** On a machine with a class every part that is not the maker's takes the class away: it was tested as a whole. */
const alien = (path: PathSnapshot, spec: StageSpec): StageSpec =>
  path.machine.machineClass === null ? spec : { ...spec, fit: { ...spec.fit, foreign: true } };

const added = (
  path: PathSnapshot,
  kind: StageKind,
  { name, spec }: { name: string; spec: StageSpec },
): EditedStage => ({
  id: null,
  kind,
  name,
  partId: null,
  missing: false,
  doNotRemove: false,
  spec: alien(path, spec),
});

const noPlace = (kind: UpgradeChange['kind']): Applied => fail(failure('upgrade.no-place', 'change', { kind }));

const fanAt = ({ stages }: PathSnapshot): number => stages.findIndex((s) => s.kind === 'fan');
const isMedium = (s: EditedStage): boolean => s.spec.air.form === 'medium';

/** A filter of its usual medium with an area of its own. */
const layer = (
  { path, leakM2 }: Upgraded,
  { kind, areaM2 }: Extract<UpgradeChange, { kind: 'bag' | 'fineLayer' | 'hepa' }>,
): Applied => {
  const media = path.stages.flatMap((s, i) => (isMedium(s) ? [i] : []));
  const [first] = media;
  const fan = fanAt(path);
  // Behind the last filter on the suction side, or, on a machine that blows through its filters, behind the last of all.
  const suction = media.filter((i) => i < fan);
  const last = suction.at(-1) ?? media.at(-1);
  const bagged = path.stages.some((s) => s.kind === 'bag' && isMedium(s) && !s.missing);
  if (first === undefined || last === undefined || (kind === 'bag' && bagged)) return noPlace(kind);
  const as: Readonly<Record<typeof kind, readonly [StageKind, string, number]>> = {
    bag: ['bag', 'bag in front', first],
    fineLayer: ['prefilter', 'fine-dust layer', last],
    hepa: ['hepa', 'HEPA cartridge', last + 1],
  };
  const [stageKind, name, before] = as[kind];
  const usual = GENERAL_STAGE[stageKind];
  if (usual.air.form !== 'medium') return noPlace(kind);
  const spec: StageSpec = { ...usual, air: { ...usual.air, areaM2 } };
  return ok({ path: inserted(path, before, added(path, stageKind, { name, spec })), leakM2 });
};

const separator = (
  { path, leakM2 }: Upgraded,
  { lossK, inletBoreM }: Extract<UpgradeChange, { kind: 'separator' }>,
): Applied => {
  const fan = fanAt(path);
  const line = path.stages.findLastIndex((s, i) => s.spec.air.form === 'line' && (fan < 0 || i < fan));
  if (line < 0) return noPlace('separator');
  const spec: StageSpec = {
    ...GENERAL_STAGE.cyclone,
    air: { form: 'cyclone', lossK, inletAreaM2: (Math.PI * inletBoreM ** 2) / 4 },
  };
  return ok({ path: inserted(path, line + 1, added(path, 'cyclone', { name: 'cyclone in front', spec })), leakM2 });
};

const otherMedium = ({ path, leakM2 }: Upgraded, change: Extract<UpgradeChange, { kind: 'medium' }>): Applied => {
  const at = path.stages.findIndex((s) => s.id === change.stageId);
  const stage = path.stages[at];
  if (!stage || stage.spec.air.form !== 'medium' || stage.missing) return noPlace('medium');
  const { medium, areaM2 } = change;
  const spec: StageSpec = {
    air: { form: 'medium', medium, areaM2, k1PaSM: null, inParallel: 1 },
    // The old part's rating does not apply to the new one.
    fit: { ...stage.spec.fit, rating: { scale: 'none' }, orientation: 'unmarked' },
  };
  return ok({ path: replaced(path, at, { ...stage, partId: null, spec: alien(path, spec) }), leakM2 });
};

/** Kinds that are exchanged, and never left out. */
const NEVER_OUT: readonly StageKind[] = ['mainFilter', 'hepa', 'canister', 'gas', 'fan'];

/**
 * Whether a part may come out for good: never what its maker says must stay, never its fine filter or its gas stage, and a
 * bag or a cloth only where a finer filter stays behind. With dust above plain on record nothing comes out that holds dust
 * or guards the room. Source: handbook of the trade, section 16: a machine never runs without its filter. Valid: a stage of
 * the path.
 */
export const mayComeOut = (path: PathSnapshot, stage: EditedStage, level: DustHazard): boolean => {
  if (level !== 'plain' && STAGE_KINDS[stage.kind].dust !== 'cleanSide') return false;
  if (stage.missing || stage.doNotRemove || NEVER_OUT.includes(stage.kind)) return false;
  if (stage.spec.air.form !== 'medium') return stage.kind !== 'hose' && stage.kind !== 'duct';
  // The stage with the finest filter always stays, under any name.
  if (stage.spec.air.medium === 'hepaGlass' || stage.spec.air.medium === 'carbonBed') return false;
  const finer: readonly StageKind[] = ['mainFilter', 'hepa', 'canister'];
  const coarse = stage.kind === 'foam' || stage.kind === 'exhaustFilter';
  return coarse || path.stages.some((s) => s !== stage && !s.missing && finer.includes(s.kind));
};

const takenOut = ({ path, leakM2 }: Upgraded, stageId: number, level: DustHazard): Applied => {
  const at = path.stages.findIndex((s) => s.id === stageId);
  const stage = path.stages[at];
  if (!stage || stage.missing || stage.kind === 'fan') return noPlace('takeOut');
  if (!mayComeOut(path, stage, level)) return fail(failure('upgrade.keep', 'change', { stage: stage.name, level }));
  // It stays on record as missing: the machine is no longer the tested appliance.
  return ok({ path: replaced(path, at, { ...stage, missing: true }), leakM2 });
};

const exhaust = (
  { path, leakM2 }: Upgraded,
  { lossK, boreM }: Extract<UpgradeChange, { kind: 'exhaust' }>,
): Applied => {
  const at = path.stages.findIndex((s) => s.kind === 'exhaust');
  const stage = path.stages[at];
  if (!stage) return noPlace('exhaust');
  const spec: StageSpec = { ...stage.spec, air: { form: 'fitting', lossK, boreM } };
  return ok({ path: replaced(path, at, { ...stage, spec: alien(path, spec) }), leakM2 });
};

const applyOne = (from: Upgraded, change: UpgradeChange, level: DustHazard): Applied => {
  switch (change.kind) {
    case 'medium':
      return otherMedium(from, change);
    case 'bag':
    case 'fineLayer':
    case 'hepa':
      return layer(from, change);
    case 'separator':
      return separator(from, change);
    case 'hose': {
      const { boreM, lengthM } = change;
      if (!from.path.stages.some((s) => s.spec.air.form === 'line')) return noPlace('hose');
      return ok({
        ...from,
        path: { ...from.path, machine: { ...from.path.machine, hoseBoreM: boreM, hoseLengthM: lengthM } },
      });
    }
    case 'exhaust':
      return exhaust(from, change);
    case 'seal':
      return ok({ ...from, leakM2: change.leakM2 });
    case 'takeOut':
      return takenOut(from, change.stageId, level);
    case 'container':
      // No air goes through a bottom container.
      return ok(from);
  }
};

/**
 * Returns the machine before and after each change; the first entry is unchanged. Definition: the lay-out of an air path;
 * common practice for where a layer, a HEPA or a cyclone goes. Valid: a path with a fan. Returns `upgrade.no-place` for
 * a change that has no place on the machine, `upgrade.keep` for a part that must not come out.
 */
export const upgradeSteps = (
  path: PathSnapshot,
  changes: readonly UpgradeChange[],
  level: DustHazard,
): Result<readonly Upgraded[]> => {
  const steps: Upgraded[] = [{ path, leakM2: null }];
  for (const [i, change] of changes.entries()) {
    const next = applyOne(steps[i] ?? { path, leakM2: null }, change, level);
    if (!next.ok) return fail(...next.failures.map((f) => ({ ...f, path: `changes.${i}` })));
    steps.push(next.value);
  }
  return ok(steps);
};
