import { MOVE_REASONS } from '@/core/plan/promises';
import { z } from 'zod';
import { DUST_HAZARDS } from '@/core/dust/level';
import { INTEGRITY_TESTS } from '@/core/machine/integrity';
import { MACHINE_KIND_NAMES } from '@/core/machine/kinds';
import { MACHINE_CLASSES } from '@/core/filter/machine-class';
import { METHOD_NAMES } from '@/core/measure/methods';
import { PLACES } from '@/core/measure/place';
import { STAGE_KIND_NAMES } from '@/core/path/stage-kinds';
import { CHANGE_REASONS } from '@/core/record/records';
import { MOVEMENT_REASONS } from '@/core/stock/ledger';
import { QUANTITY_KINDS } from '@/core/units';

/** Names at the door: each list is the core's own. */
export const MethodName = z.enum(METHOD_NAMES);
export const PlaceName = z.enum(PLACES);
export const ChangeReasonName = z.enum(CHANGE_REASONS);
export const MoveReasonName = z.enum(MOVE_REASONS);
export const MachineClassName = z.enum(MACHINE_CLASSES);
export const IntegrityTestName = z.enum(INTEGRITY_TESTS);
export const MovementReasonName = z.enum(MOVEMENT_REASONS);
export const HazardName = z.enum(DUST_HAZARDS);
export const MachineKindName = z.enum(MACHINE_KIND_NAMES);
export const StageKindName = z.enum(STAGE_KIND_NAMES);
export const QuantityKindName = z.enum(QUANTITY_KINDS);
