import { Printer } from 'lucide-react';
import { useEffect, useState } from 'react';
import { DISC_COVERS, discHoleM, type DiscSeen, discVerdict } from '@/core/path/disc';
import { type CheckedFilter, notReady } from '@/core/path/fresh';
import { show, type UnitSystem, fixed } from '@/core/units';
import type { Problem } from '@/messages/failures';
import { NOT_READY_WORDS, VERDICT_WORDS } from '@/messages/indicator';
import { newClientId, postAction } from '@/ui/post-action';
import { FieldProblems } from '@/ui/problems';
import { InitialsField } from '@/ui/text-fields';
import { ToneMark } from '@/ui/tone-mark';

interface IndicatorProps {
  readonly tag: string;
  readonly boreM: number | null;
  readonly selectorM: number | null;
  readonly hasLamp: boolean;
  readonly filters: readonly (CheckedFilter & { readonly id: number; readonly changedOn: string | null })[];
  readonly caseId: number | null;
  readonly units: UnitSystem;
  readonly by: string;
}

const MARGIN_MM = 12;
const RULE_MM = 50;

/** The disc at true scale: one unit of the drawing is one millimetre on paper. */
const DiscPicture = ({ boreM, holeM }: { readonly boreM: number; readonly holeM: number }) => {
  const [outer, hole] = [boreM * 1000 + 2 * MARGIN_MM, holeM * 1000];
  const width = Math.max(outer, RULE_MM) + 4;
  const centre = width / 2;
  const rule = outer + 10;
  return (
    <svg
      width={`${width}mm`}
      height={`${rule + 8}mm`}
      viewBox={`0 0 ${width} ${rule + 8}`}
      role="img"
      aria-label={`Disc with a hole of ${fixed(hole, 1)} millimetres`}
      className="max-w-full"
    >
      <circle cx={centre} cy={outer / 2 + 1} r={outer / 2} fill="none" stroke="currentColor" strokeWidth="0.3" />
      <circle
        cx={centre}
        cy={outer / 2 + 1}
        r={boreM * 500}
        fill="none"
        stroke="currentColor"
        strokeWidth="0.2"
        strokeDasharray="1.5 1"
      />
      <circle cx={centre} cy={outer / 2 + 1} r={hole / 2} fill="none" stroke="currentColor" strokeWidth="0.4" />
      <path
        d={`M${centre - 3} ${outer / 2 + 1} h6 M${centre} ${outer / 2 - 2} v6`}
        stroke="currentColor"
        strokeWidth="0.2"
      />
      <path
        d={`M${centre - RULE_MM / 2} ${rule} h${RULE_MM} m0 -1.5 v3 M${centre - RULE_MM / 2} ${rule - 1.5} v3`}
        stroke="currentColor"
        strokeWidth="0.3"
        fill="none"
      />
      <text x={centre} y={rule + 5} fontSize="2.7" textAnchor="middle" fill="currentColor">
        50 mm on paper: measure it before you cut
      </text>
    </svg>
  );
};

const Seen = ({
  label,
  value,
  onSeen,
  off,
}: {
  readonly label: string;
  readonly value: 'lit' | 'out' | null;
  readonly onSeen: (v: 'lit' | 'out') => void;
  readonly off: boolean;
}) => (
  <fieldset disabled={off}>
    <legend className="caption">{label}</legend>
    <div className="grid grid-cols-2 gap-1">
      {(['lit', 'out'] as const).map((v) => (
        <button
          key={v}
          type="button"
          className="choice min-h-14 text-center text-lg font-bold disabled:opacity-50"
          aria-pressed={value === v}
          onClick={() => onSeen(v)}
        >
          {v === 'lit' ? 'On' : 'Out'}
        </button>
      ))}
    </div>
  </fieldset>
);

const Prerequisite = ({
  filters,
  said,
  onSaid,
}: Pick<IndicatorProps, 'filters'> & {
  readonly said: ReadonlySet<string>;
  readonly onSaid: (name: string, is: boolean) => void;
}) => (
  <fieldset>
    <legend className="font-bold">1. Fresh bag and filters first</legend>
    <ul>
      {filters.map((f) => {
        const [wrong] = notReady([f], said);
        return (
          <li key={f.id} className="border-base-300 flex flex-wrap items-center gap-x-3 border-b py-1">
            <span className="font-semibold">{f.name}</span>
            {wrong ? (
              <ToneMark tone="watch" word={NOT_READY_WORDS[wrong.because]} size={15} />
            ) : (
              <ToneMark
                tone="good"
                word={
                  said.has(f.name)
                    ? 'fitted new just now'
                    : `${Math.round((f.remaining ?? 0) * 100)} % of its interval to go`
                }
                size={15}
              />
            )}
            {!f.missing && (
              <label className="ml-auto flex min-h-11 items-center gap-2">
                <input
                  type="checkbox"
                  className="checkbox checkbox-primary"
                  checked={said.has(f.name)}
                  onChange={(e) => onSaid(f.name, e.currentTarget.checked)}
                />{' '}
                new just now
              </label>
            )}
          </li>
        );
      })}
    </ul>
  </fieldset>
);

interface VerdictProps {
  readonly verdict: keyof typeof VERDICT_WORDS;
  readonly caseId: number | null;
  readonly kept: 'no' | 'going' | 'yes';
  readonly by: string;
  readonly setBy: (by: string) => void;
  readonly keep: () => Promise<void>;
}

const Verdict = ({ verdict, caseId, kept, by, setBy, keep }: VerdictProps) => (
  <div role="status">
    <p className="text-xl">
      <ToneMark tone={verdict === 'good' ? 'good' : 'stop'} word={VERDICT_WORDS[verdict][0]} />
    </p>
    <p>{VERDICT_WORDS[verdict][1]}</p>
    {caseId !== null && kept !== 'yes' && (
      <p className="mt-2 flex items-end gap-1">
        <InitialsField value={by} onValue={setBy} />
        <button
          type="button"
          className="go"
          disabled={by.trim() === '' || kept === 'going'}
          onClick={() => void keep()}
        >
          Save to the open case
        </button>
      </p>
    )}
    {kept === 'yes' && <p className="tone-good font-bold">Saved to the case log.</p>}
    {caseId === null && <p className="soft">Open a case under Find to save it.</p>}
  </div>
);

const seenAction = (verdict: VerdictProps['verdict']) => ({
  kind: 'saw',
  operation: { kind: 'disc' },
  seen: { kind: 'word', word: verdict === 'good' ? 'good' : 'bad' },
  note: VERDICT_WORDS[verdict][0],
  correctsEventId: null,
});

/** The indicator helper: the disc for this hose at true scale, its prerequisite, and what the light says. */
export const IndicatorCheck = ({ tag, boreM, selectorM, hasLamp, filters, caseId, units, by }: IndicatorProps) => {
  const [said, setSaid] = useState<ReadonlySet<string>>(new Set());
  const [covered, setCovered] = useState<DiscSeen['covered'] | null>(null);
  const [uncovered, setUncovered] = useState<DiscSeen['uncovered'] | null>(null);
  const [problems, setProblems] = useState<readonly Problem[]>([]);
  const [kept, setKept] = useState<'no' | 'going' | 'yes'>('no');
  const [initials, setInitials] = useState(by);
  useEffect(() => {
    document.documentElement.dataset['indicator'] = 'ready';
  }, []);
  if (!hasLamp) return <p className="py-4">This machine has no low-flow light: there is no indicator to check.</p>;
  if (boreM === null)
    return <p className="py-4">The bore of its hose is not on record: type it in the machine editor first.</p>;
  const wrong = notReady(filters, said);
  const off = wrong.length > 0;
  const holeM = discHoleM(boreM);
  const verdict = covered && uncovered && !off ? discVerdict({ covered, uncovered }) : null;
  const onSaid = (name: string, is: boolean) =>
    setSaid((held) => new Set(is ? [...held, name] : [...held].filter((n) => n !== name)));
  const keep = async () => {
    if (!verdict || caseId === null || kept !== 'no') return;
    setKept('going');
    const posted = await postAction(`/api/machines/${encodeURIComponent(tag)}/cases/actions`, {
      clientId: newClientId(),
      by: initials.trim().toUpperCase(),
      caseId,
      action: seenAction(verdict),
    });
    setKept(posted.ok ? 'yes' : 'no');
    setProblems(posted.ok ? [] : posted.problems);
  };
  return (
    <div className="py-3">
      <h2 className="text-2xl font-bold">
        A hole of{' '}
        <span className="dial">{units === 'us' ? show('length', holeM, 'us') : `${fixed(holeM * 1000, 1)} mm`}</span>{' '}
        covers {DISC_COVERS * 100} % of this hose
      </h2>
      <p className="soft">
        Hose bore {show('length', boreM, units)}: a fifth of its area stays open, {fixed((holeM / boreM) * 100, 0)} % of
        its bore.{' '}
        {selectorM !== null && Math.abs(selectorM - boreM) > 5e-4
          ? `The selector is set to ${show('length', selectorM, units)}: set it to the hose first.`
          : ''}
      </p>
      <div className="grid gap-x-8 gap-y-4 pt-3 lg:grid-cols-2">
        <div className="print-only min-w-0 overflow-x-auto">
          <DiscPicture boreM={boreM} holeM={holeM} />
          <button
            type="button"
            className="choice mt-2 inline-flex items-center gap-2 font-semibold print:hidden"
            onClick={() => window.print()}
          >
            <Printer size={18} aria-hidden="true" /> Print at 100 %
          </button>
        </div>
        <div className="min-w-0 space-y-3">
          <Prerequisite filters={filters} said={said} onSaid={onSaid} />
          <p className="font-bold">
            2. Run at full speed with the disc on the hose end, wait 10 to 15 s, then take it off.
          </p>
          {off && (
            <p className="tone-watch font-semibold">
              Not yet: a loaded filter also turns the light on, and the check would prove nothing.
            </p>
          )}
          <Seen label="With the disc on" value={covered} onSeen={setCovered} off={off} />
          <Seen label="With the disc off again" value={uncovered} onSeen={setUncovered} off={off} />
          {verdict && (
            <Verdict verdict={verdict} caseId={caseId} kept={kept} by={initials} setBy={setInitials} keep={keep} />
          )}
          <FieldProblems id="indicator-problems" problems={problems} />
        </div>
      </div>
    </div>
  );
};
