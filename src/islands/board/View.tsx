import { Plus, QrCode, Search, X } from 'lucide-react';
import {
  lazy,
  type RefObject,
  Suspense,
  useCallback,
  useEffect,
  useMemo,
  useRef,
  useState,
  useSyncExternalStore,
} from 'react';
import { LifeBar } from '@/ui/life-bar';
import { ToneMark } from '@/ui/tone-mark';
import type { BoardTag } from '@/view-models/board-tags';
import { matches, scannedTag } from '@/core/machine/tag-search';

/** The camera is fetched only by who asks for it. */
const Scan = lazy(async () => ({ default: (await import('./Scan')).Scan }));

interface BoardProps {
  /** The most urgent of them, as the text of a list of `BoardTag`: a list would be written property by property. */
  readonly text: string;
  /** How many machines the yard has. */
  readonly total: number;
  readonly current: string | null;
  /** May open the page of people. */
  readonly keepsPeople: boolean;
}

const Tag = ({ tag, current }: { tag: BoardTag; current: boolean }) => (
  <a
    href={`/m/${encodeURIComponent(tag.tag)}`}
    aria-current={current ? 'page' : undefined}
    className={`block border-l-4 px-3 py-2 ${current ? 'bg-base-100 border-primary' : 'hover:bg-base-100 border-transparent'}`}
  >
    <span className="flex items-baseline gap-2">
      <span className="dial text-lg leading-none">{tag.tag}</span>
      <span className="min-w-0 flex-1 truncate font-semibold" title={tag.name}>
        {tag.name}
      </span>
      <span className="shrink-0 text-xs font-bold">{tag.classText}</span>
    </span>
    <span className="flex items-baseline justify-between gap-2 text-sm leading-snug">
      <span className="min-w-0 flex-1">
        <ToneMark tone={tag.tone} word={tag.need} size={15} />
      </span>
      {tag.flag && <span className="tone-open shrink-0 text-xs font-bold max-w-24 text-right">{tag.flag}</span>}
    </span>
    {tag.remaining !== null && (
      <span className="mt-1 block">
        <LifeBar remaining={tag.remaining} label={tag.remainingText} />
      </span>
    )}
  </a>
);

/** Opens the board over the page: by `/`, or by "Machines" at the foot of a phone, which without script is a link. */
const useSheet = (input: RefObject<HTMLInputElement | null>): void => {
  useEffect(() => {
    const sheet = document.body.dataset;
    const jump = () => {
      sheet['sheet'] = 'open';
      input.current?.focus();
      input.current?.select();
    };
    const toggle = (event: MouseEvent) => {
      if (!(event.target instanceof Element) || !event.target.closest('[data-open-sheet]') || 'boardFirst' in sheet)
        return;
      event.preventDefault();
      if (sheet['sheet'] === 'open') delete sheet['sheet'];
      else sheet['sheet'] = 'open';
    };
    document.addEventListener('moorwind:jump', jump);
    document.addEventListener('click', toggle);
    return () => {
      document.removeEventListener('moorwind:jump', jump);
      document.removeEventListener('click', toggle);
    };
  }, [input]);
};

/** Number of tags in the page itself, more than a tall screen shows; the script adds the others. */
const AT_FIRST = 16;

const nothing = (): void => undefined;
/** Whether the script runs: false in the page as it comes and for the first drawing, which must equal it. */
const useInBrowser = (): boolean =>
  useSyncExternalStore(
    () => nothing,
    () => true,
    () => false,
  );

const NoTag = ({ query, any }: { query: string; any: boolean }) =>
  any ? (
    <p>No machine matches "{query}".</p>
  ) : (
    <>
      <p className="font-bold">No machine yet.</p>
      <p className="soft mt-1">Enter the first one below.</p>
    </>
  );

interface RestProps {
  readonly query: string;
  /** Where all machines are listed. */
  readonly all: string;
  readonly shown: number;
  readonly of: number;
  readonly total: number;
  readonly keepsPeople: boolean;
}

/** Below the tags: the rest of a large yard, a new machine, the people. */
const Rest = ({ query, all, shown, of, total, keepsPeople }: RestProps) => {
  const more = total > of;
  return (
    <>
      {more && (
        <li>
          <a href={all} className="flex min-h-12 items-center px-4 font-semibold hover:bg-base-300">
            {query.trim() === ''
              ? `The ${of} most pressing; all ${total} machines`
              : `Look among all ${total} machines`}
          </a>
        </li>
      )}
      {shown === 0 && !more && (
        <li className="p-4">
          <NoTag query={query} any={of > 0} />
        </li>
      )}
      <li>
        <a href="/machines/new" className="flex min-h-12 items-center gap-2 px-4 font-semibold hover:bg-base-300">
          <Plus size={18} aria-hidden="true" /> A new machine
        </a>
      </li>
      <li>
        <a href="/instruments" className="flex min-h-12 items-center px-4 font-semibold hover:bg-base-300">
          Meters
        </a>
      </li>
      <li>
        <a href="/tools" className="flex min-h-12 items-center px-4 font-semibold hover:bg-base-300">
          Tools
        </a>
      </li>
      <li>
        <a href="/upgrades" className="flex min-h-12 items-center px-4 font-semibold hover:bg-base-300">
          Upgrades
        </a>
      </li>
      {keepsPeople && (
        <li>
          <a href="/site" className="flex min-h-12 items-center px-4 font-semibold hover:bg-base-300">
            Site and settings
          </a>
        </li>
      )}
      {keepsPeople && (
        <li>
          <a href="/people" className="flex min-h-12 items-center px-4 font-semibold hover:bg-base-300">
            People and keys
          </a>
        </li>
      )}
    </>
  );
};

/** The board: every machine as an asset tag, most urgent first, with a jump by tag. */
export const Board = ({ text, total, current, keepsPeople }: BoardProps) => {
  const tags = useMemo(() => JSON.parse(text) as readonly BoardTag[], [text]);
  const [query, setQuery] = useState('');
  const input = useRef<HTMLInputElement>(null);
  const shown = tags.filter((t) => matches(t, query));
  useSheet(input);
  const whole = useInBrowser();
  const more = total > tags.length;
  const all = `/machines${query.trim() === '' ? '' : `?q=${encodeURIComponent(query.trim())}`}`;
  const [scanning, setScanning] = useState(false);
  const open = useCallback((tag: string) => window.location.assign(`/m/${encodeURIComponent(tag)}`), []);
  const go = () => {
    // A hand scanner types the whole address of a label.
    const [first] = shown;
    if (scannedTag(query) !== query) open(scannedTag(query));
    else if (first) open(first.tag);
    else if (more) window.location.assign(all);
  };
  return (
    <nav aria-label="Machines" className="flex h-full min-h-0 flex-col">
      <form
        className="border-base-300 flex gap-2 border-b p-2"
        onSubmit={(e) => {
          e.preventDefault();
          go();
        }}
      >
        <label className="relative block flex-1">
          <span className="sr-only">Jump to a tag</span>
          <Search size={18} aria-hidden="true" className="soft absolute top-3.5 left-2.5" />
          <input
            ref={input}
            className="field pl-9"
            placeholder="/  jump to a tag"
            value={query}
            maxLength={200}
            autoComplete="off"
            onChange={(e) => setQuery(e.target.value)}
            onKeyDown={(e) => {
              if (e.key !== 'Escape') return;
              setQuery('');
              e.currentTarget.blur();
            }}
          />
        </label>
        {whole && 'mediaDevices' in navigator && (
          <button
            type="button"
            className="choice w-11 text-center"
            aria-label="Scan a label"
            aria-pressed={scanning}
            onClick={() => setScanning(!scanning)}
          >
            <QrCode size={18} aria-hidden="true" className="mx-auto" />
          </button>
        )}
        <button
          type="button"
          className="sheet-close choice board:hidden w-11 text-center"
          aria-label="Close the machines"
          onClick={() => delete document.body.dataset['sheet']}
        >
          <X size={20} aria-hidden="true" className="mx-auto" />
        </button>
      </form>
      {scanning && (
        <Suspense fallback={null}>
          <Scan onTag={open} onClose={() => setScanning(false)} />
        </Suspense>
      )}
      <ul className="divide-base-300 min-h-0 flex-1 divide-y overflow-y-auto" aria-live="polite">
        {(whole ? shown : shown.slice(0, AT_FIRST)).map((t) => (
          <li key={t.tag}>
            <Tag tag={t} current={t.tag === current} />
          </li>
        ))}
        <Rest query={query} all={all} shown={shown.length} of={tags.length} total={total} keepsPeople={keepsPeople} />
      </ul>
    </nav>
  );
};
