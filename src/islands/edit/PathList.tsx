import {
  closestCenter,
  DndContext,
  type DragEndEvent,
  KeyboardSensor,
  PointerSensor,
  useDraggable,
  useSensor,
  useSensors,
} from '@dnd-kit/core';
import {
  arrayMove,
  SortableContext,
  sortableKeyboardCoordinates,
  useSortable,
  verticalListSortingStrategy,
} from '@dnd-kit/sortable';
import { CSS } from '@dnd-kit/utilities';
import { ArrowDown, ArrowUp, GripVertical, Plus } from 'lucide-react';
import type { ReactNode } from 'react';
import type { RuleSet } from '@/core/dust/dust';
import { offeredRules } from '@/core/interval/rule-templates';
import { usualRules } from '@/core/machine/usual-rules';
import { STAGE_KINDS, type StageKind } from '@/core/path/stage-kinds';
import { sayRule } from '@/messages/needs';
import { capital } from '@/messages/words';
import { StageGlyph } from '@/ui/air-path/stage-glyph';
import type { Draft, DraftStage, EditAction } from './state';

interface ListProps {
  readonly draft: Draft;
  readonly dispatch: (action: EditAction) => void;
  /** Positions that are not allowed. */
  readonly wrong: ReadonlySet<number>;
  readonly ruleSet: RuleSet;
}

const PALETTE: readonly StageKind[] = [
  'nozzle',
  'shroud',
  'hood',
  'hose',
  'wye',
  'duct',
  'inlet',
  'cyclone',
  'dropChamber',
  'bag',
  'cloth',
  'foam',
  'prefilter',
  'mainFilter',
  'canister',
  'hepa',
  'gas',
  'ring',
  'fan',
  'exhaustFilter',
  'muffler',
  'exhaust',
];
const FROM_PALETTE = 'palette:';

const PaletteItem = ({ kind, onAdd }: { kind: StageKind; onAdd: () => void }) => {
  const { attributes, listeners, setNodeRef, transform, isDragging } = useDraggable({ id: `${FROM_PALETTE}${kind}` });
  return (
    <button
      ref={setNodeRef}
      type="button"
      {...listeners}
      aria-describedby={attributes['aria-describedby']}
      onClick={onAdd}
      className="choice flex touch-none items-center gap-1.5 text-sm font-semibold"
      style={{
        transform: CSS.Translate.toString(transform),
        zIndex: isDragging ? 30 : undefined,
        position: 'relative',
        opacity: isDragging ? 0.85 : 1,
      }}
    >
      <Plus size={14} aria-hidden="true" /> {STAGE_KINDS[kind].label}
    </button>
  );
};

const IconButton = ({
  label,
  disabled,
  onClick,
  children,
}: {
  label: string;
  disabled: boolean;
  onClick: () => void;
  children: ReactNode;
}) => (
  <button
    type="button"
    className="flex h-11 w-9 items-center justify-center disabled:opacity-30"
    aria-label={label}
    disabled={disabled}
    onClick={onClick}
  >
    {children}
  </button>
);

const stateWords = (stage: DraftStage): string =>
  [
    stage.missing ? 'missing' : '',
    stage.spec.fit.foreign ? 'foreign part' : '',
    stage.spec.fit.orientation === 'againstFlow' ? 'against its arrow' : '',
    stage.doNotRemove ? 'stays in' : '',
  ]
    .filter((w) => w !== '')
    .join(', ');

/** The rules of a new stage, in words; '' where the kind has none. */
const dueWords = (stage: DraftStage, { draft, ruleSet }: Pick<ListProps, 'draft' | 'ruleSet'>): string => {
  if (stage.id !== null || offeredRules(stage.kind).length === 0) return '';
  const { machineClass } = draft.machine;
  const hasGauge = stage.spec.fit.gaugePa !== null;
  const rules = stage.rules ?? usualRules(stage.kind, { kind: draft.kind, machineClass, ruleSet, hasGauge });
  if (rules.length === 0) return stage.kind === 'fan' ? 'no examination' : 'never due by itself';
  return rules.map(({ rule }) => sayRule(rule)).join(', or ');
};

const Row = ({
  stage,
  position,
  draft,
  dispatch,
  wrong,
  ruleSet,
}: ListProps & { readonly stage: DraftStage; readonly position: number }) => {
  const { attributes, listeners, setNodeRef, transform, transition, isDragging } = useSortable({ id: stage.key });
  const bad = wrong.has(position);
  const words = stateWords(stage);
  const due = dueWords(stage, { draft, ruleSet });
  const name = stage.name.trim() === '' ? `stage ${position + 1}` : stage.name;
  return (
    <li
      ref={setNodeRef}
      className={`border-base-300 bg-base-100 flex items-center border-b ${bad ? 'border-l-4 border-l-error' : ''}`}
      style={{
        transform: CSS.Transform.toString(transform),
        transition: transition ?? undefined,
        zIndex: isDragging ? 20 : undefined,
        position: 'relative',
      }}
    >
      <button
        type="button"
        className="flex h-12 w-9 cursor-grab touch-none items-center justify-center"
        {...attributes}
        {...listeners}
        aria-label={`Move ${name}`}
      >
        <GripVertical size={18} aria-hidden="true" />
      </button>
      <button
        type="button"
        className={`flex min-h-12 min-w-0 flex-1 items-center gap-2 px-1 text-left ${draft.selected === stage.key ? 'bg-primary/15 font-bold' : 'hover:bg-base-200'}`}
        aria-pressed={draft.selected === stage.key}
        onClick={() => dispatch({ type: 'select', key: stage.key })}
      >
        <span className={`h-8 w-11 shrink-0 ${stage.missing ? 'tone-stop' : ''}`}>
          <StageGlyph kind={stage.kind} missing={stage.missing} />
        </span>
        <span className="min-w-0 break-words">
          {capital(name)}
          {bad && <span className="tone-stop block text-xs font-bold">cannot stand here</span>}
          {due !== '' && <span className="soft block text-xs font-normal">{due}</span>}
          {words !== '' && <span className="tone-watch block text-xs font-semibold">{words}</span>}
        </span>
      </button>
      <IconButton
        label={`${name}: towards the tool`}
        disabled={position === 0}
        onClick={() => dispatch({ type: 'move', key: stage.key, to: position - 1 })}
      >
        <ArrowUp size={16} aria-hidden="true" />
      </IconButton>
      <IconButton
        label={`${name}: towards the room`}
        disabled={position === draft.stages.length - 1}
        onClick={() => dispatch({ type: 'move', key: stage.key, to: position + 1 })}
      >
        <ArrowDown size={16} aria-hidden="true" />
      </IconButton>
    </li>
  );
};

/** The stages in order, to be dragged, moved by arrow, chosen, and added to from the templates. */
export const PathList = (p: ListProps) => {
  const { draft, dispatch } = p;
  const sensors = useSensors(
    useSensor(PointerSensor, { activationConstraint: { distance: 6 } }),
    useSensor(KeyboardSensor, { coordinateGetter: sortableKeyboardCoordinates }),
  );
  const keys = draft.stages.map((s) => s.key);
  const dropped = ({ active, over }: DragEndEvent) => {
    const [from, to] = [String(active.id), over ? String(over.id) : null];
    if (from.startsWith(FROM_PALETTE)) {
      const kind = PALETTE.find((k) => `${FROM_PALETTE}${k}` === from);
      if (kind && to !== null) dispatch({ type: 'add', kind, before: to });
      return;
    }
    if (to !== null && to !== from)
      dispatch({ type: 'move', key: from, to: arrayMove(keys, keys.indexOf(from), keys.indexOf(to)).indexOf(from) });
  };
  /** A chosen template goes behind the chosen stage, else to the end. */
  const next = () => draft.stages[draft.stages.findIndex((s) => s.key === draft.selected) + 1]?.key ?? null;
  const behind = () => (draft.selected === null ? null : next());
  return (
    <DndContext id="path" sensors={sensors} collisionDetection={closestCenter} onDragEnd={dropped}>
      <p className="soft text-xs font-semibold">tool</p>
      <SortableContext items={keys} strategy={verticalListSortingStrategy}>
        <ol className="border-base-300 border-t">
          {draft.stages.map((stage, position) => (
            <Row key={stage.key} {...p} stage={stage} position={position} />
          ))}
        </ol>
      </SortableContext>
      <p className="soft text-xs font-semibold">room</p>
      <details className="mt-1">
        <summary className="flex min-h-11 cursor-pointer items-center gap-1.5 font-bold">
          <Plus size={18} aria-hidden="true" /> Add a stage
        </summary>
        <p className="soft text-sm">
          Drag it into place, or tap it to put it {draft.selected === null ? 'at the end' : 'after the chosen one'}.
        </p>
        <div className="mt-1 flex flex-wrap gap-1.5">
          {PALETTE.map((kind) => (
            <PaletteItem key={kind} kind={kind} onAdd={() => dispatch({ type: 'add', kind, before: behind() })} />
          ))}
        </div>
      </details>
    </DndContext>
  );
};
