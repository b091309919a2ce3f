interface FieldProps {
  readonly value: string;
  readonly onValue: (value: string) => void;
}

/** The initials: needed before anything is recorded. */
export const InitialsField = ({ value, onValue }: FieldProps) => (
  <label className="block w-20">
    <span className="caption">Initials</span>
    <input
      className="field"
      value={value}
      maxLength={12}
      autoComplete="off"
      onChange={(e) => onValue(e.currentTarget.value)}
    />
  </label>
);

interface LineProps extends FieldProps {
  readonly label: string;
  readonly maxLength: number;
  readonly disabled?: boolean;
}

/** One line of text under its label. */
export const TextField = ({ label, value, maxLength, disabled = false, onValue }: LineProps) => (
  <label className="block min-w-0 flex-1 basis-56">
    <span className="caption">{label}</span>
    <input
      className="field"
      value={value}
      maxLength={maxLength}
      disabled={disabled}
      onChange={(e) => onValue(e.currentTarget.value)}
    />
  </label>
);

interface ChoicesProps<T extends string> {
  readonly legend: string;
  readonly options: readonly T[];
  readonly words: Readonly<Record<T, string>>;
  readonly chosen: readonly T[];
  readonly onChosen: (chosen: readonly T[]) => void;
}

/** Any number of a few names, each a button that stays down. */
export const Choices = <T extends string>({ legend, options, words, chosen, onChosen }: ChoicesProps<T>) => (
  <fieldset>
    <legend className="caption">{legend}</legend>
    <div className="flex flex-wrap gap-1">
      {options.map((o) => (
        <button
          key={o}
          type="button"
          className="choice text-sm"
          aria-pressed={chosen.includes(o)}
          onClick={() => onChosen(chosen.includes(o) ? chosen.filter((x) => x !== o) : [...chosen, o])}
        >
          {words[o]}
        </button>
      ))}
    </div>
  </fieldset>
);
