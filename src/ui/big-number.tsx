interface BigNumberProps {
  readonly number: string;
  readonly unit: string;
  readonly label: string;
  readonly plusMinus?: string | undefined;
  readonly size?: 'big' | 'small';
}

/** A measured figure: the number, its unit beside it, its name below it. */
export const BigNumber = ({ number, unit, label, plusMinus, size = 'big' }: BigNumberProps) => (
  <div className="min-w-0">
    <div className="flex items-baseline gap-1.5 whitespace-nowrap">
      <span className={`dial ${size === 'big' ? 'text-4xl' : 'text-2xl'} leading-none`}>{number}</span>
      <span className="text-base font-semibold">{unit}</span>
    </div>
    {plusMinus !== undefined && <div className="dial text-sm font-medium">± {plusMinus}</div>}
    <div className="caption mt-0.5">{label}</div>
  </div>
);
