/** One unit of a quantity: valueSi = factor x number + offset. */
export interface Unit {
  readonly symbol: string;
  readonly factor: number;
  readonly offset?: number;
  /** Other ways people write it, compared after `normaliseUnit`. */
  readonly aliases: readonly string[];
}

export const QUANTITY_KINDS = [
  'pressure',
  'flow',
  'velocity',
  'length',
  'area',
  'mass',
  'temperature',
  'temperatureDifference',
  'power',
  'volume',
  'concentration',
  'countConcentration',
  'relativeHumidity',
  'density',
  'voltage',
  'current',
  'rotation',
  'duration',
  'count',
] as const;
export type QuantityKind = (typeof QUANTITY_KINDS)[number];

const unit = (symbol: string, factor: number, aliases: readonly string[] = []): Unit => ({ symbol, factor, aliases });

const INCH = 0.0254;
const FOOT = 0.3048;
const POUND = 0.45359237;
const US_GALLON = 3.785411784e-3;
const SPELLED_C = ['degreec', 'degreesc', 'degcelsius', 'degreecelsius', 'degreescelsius'];
const SPELLED_F = ['degreef', 'degreesf', 'degfahrenheit', 'degreefahrenheit', 'degreesfahrenheit'];
/** Counts in a volume of air, as meters print them. */
const counted = (volume: string): readonly string[] =>
  ['#', 'count', 'counts', 'particles', 'pcs', 'p'].map((what) => `${what}/${volume}`);
const KELVIN_AT_ZERO_F = 273.15 - (32 * 5) / 9;

/**
 * Units by quantity, SI first.
 * Source: NIST SP 811 (2008) Appendix B for the US units (conventional inch and millimetre of water,
 * pound-force per square inch, inch and millimetre of mercury, foot, pound, US gallon); SI Brochure for the rest.
 * Mechanical horsepower 550 ft lbf/s.
 */
export const UNITS = {
  pressure: [
    unit('Pa', 1, ['pascal', 'pascals']),
    unit('kPa', 1000, ['kilopascal']),
    unit('mbar', 100, ['hpa', 'millibar', 'millibars', 'mb']),
    unit('bar', 1e5, ['bars']),
    unit('mmH2O', 9.80665, ['mmwc', 'mmwg', 'mmwater', 'mmws']),
    unit('cmH2O', 98.0665, ['cmwc', 'cmwg', 'cmwater']),
    unit('inH2O', 249.08891, [
      'inwc',
      'inwg',
      'inwater',
      'inchesofwater',
      'incheswc',
      'inchwc',
      'incheswg',
      'inchwg',
      'inchesh2o',
      'inchh2o',
      'inchesofwatercolumn',
      'inchesofwatergauge',
      'inchwater',
      'incheswater',
      '"h2o',
      '"wc',
      '"wg',
      'iwc',
    ]),
    unit('psi', 6894.757293168, ['lbf/in2', 'psig']),
    unit('inHg', 3386.389, ['"hg', 'inchesofmercury', 'inchesmercury', 'inmercury']),
    unit('mmHg', 133.3224, ['millimetresofmercury', 'millimetersofmercury']),
    unit('Torr', 101_325 / 760, []),
    unit('atm', 101_325, ['atmosphere', 'atmospheres']),
  ],
  flow: [
    unit('m3/s', 1, ['cms']),
    unit('m3/h', 1 / 3600, ['m3/hr', 'm3/hour', 'cmh', 'cbm/h']),
    unit('m3/min', 1 / 60, ['cmm']),
    unit('L/s', 1e-3, ['lps', 'l/sec', 'litre/s', 'liter/s', 'litres/s', 'liters/s', 'litres/sec', 'liters/sec']),
    unit('L/min', 1e-3 / 60, ['lpm', 'litre/min', 'liter/min', 'litres/min', 'liters/min']),
    // Actual volume flow, at the density of the air moved (not standard flow).
    unit('cfm', 4.719474432e-4, ['ft3/min', 'cuft/min', 'acfm']),
  ],
  velocity: [
    unit('m/s', 1, ['mps', 'm/sec']),
    unit('fpm', FOOT / 60, ['ft/min', 'feet/min']),
    unit('ft/s', FOOT, ['fps', 'ft/sec', 'feet/s', 'feet/sec']),
    unit('km/h', 1 / 3.6, ['kmh', 'kph', 'km/hr']),
  ],
  length: [
    unit('m', 1, ['metre', 'meter', 'metres', 'meters']),
    unit('mm', 1e-3, ['millimetre', 'millimeter', 'millimetres', 'millimeters']),
    unit('cm', 1e-2, ['centimetre', 'centimeter', 'centimetres', 'centimeters']),
    unit('um', 1e-6, ['µm', 'micron', 'microns', 'micrometre', 'micrometer']),
    unit('in', INCH, ['"', 'inch', 'inches']),
    unit('ft', FOOT, ["'", 'foot', 'feet']),
  ],
  area: [
    unit('m2', 1, ['sqm', 'squaremetre', 'squaremeter', 'squaremetres', 'squaremeters']),
    unit('ft2', FOOT * FOOT, ['sqft', 'squarefoot', 'squarefeet']),
    unit('cm2', 1e-4, ['sqcm', 'squarecentimetres', 'squarecentimeters']),
    unit('mm2', 1e-6, ['sqmm', 'squaremillimetres', 'squaremillimeters']),
    unit('in2', INCH * INCH, ['sqin', 'squareinch', 'squareinches']),
  ],
  mass: [
    unit('kg', 1, ['kilo', 'kilos']),
    unit('g', 1e-3, ['gram', 'grams']),
    unit('mg', 1e-6, ['milligram', 'milligrams']),
    unit('oz', POUND / 16, ['ounce', 'ounces']),
    unit('lb', POUND, ['lbs', 'pound', 'pounds']),
  ],
  temperature: [
    unit('K', 1, ['kelvin']),
    { ...unit('degC', 1, ['c', 'celsius', '°c', ...SPELLED_C]), offset: 273.15 },
    { ...unit('degF', 5 / 9, ['f', 'fahrenheit', '°f', ...SPELLED_F]), offset: KELVIN_AT_ZERO_F },
  ],
  temperatureDifference: [
    unit('K', 1, ['kelvin', 'degc', '°c', 'c', ...SPELLED_C]),
    unit('degF', 5 / 9, ['f', '°f', 'fahrenheit', ...SPELLED_F]),
  ],
  power: [unit('W', 1, ['watt', 'watts']), unit('kW', 1000, []), unit('hp', 745.6998715822702, ['horsepower'])],
  volume: [
    unit('m3', 1, []),
    unit('L', 1e-3, ['litre', 'liter', 'litres', 'liters']),
    unit('gal', US_GALLON, ['gallon', 'gallons', 'usgal']),
    unit('ft3', FOOT ** 3, ['cuft']),
  ],
  concentration: [unit('kg/m3', 1, []), unit('mg/m3', 1e-6, []), unit('ug/m3', 1e-9, ['µg/m3', 'mcg/m3'])],
  countConcentration: [
    unit('1/m3', 1, ['/m3', 'perm3', ...counted('m3')]),
    unit('1/L', 1e3, ['/l', 'perl', 'perlitre', 'perliter', ...counted('l')]),
    unit('1/ft3', 1 / FOOT ** 3, ['/ft3', 'perft3', 'percubicfoot', '/cf', ...counted('ft3'), ...counted('cf')]),
    unit('1/cm3', 1e6, ['/cm3', 'percm3', '/cc', 'percc', ...counted('cm3'), ...counted('cc')]),
  ],
  relativeHumidity: [unit('1', 1, []), unit('%', 0.01, ['percent', '%rh', 'rh'])],
  density: [unit('kg/m3', 1, []), unit('lb/ft3', POUND / FOOT ** 3, [])],
  voltage: [unit('V', 1, ['volt', 'volts', 'vac', 'voltac', 'voltsac', 'vrms'])],
  current: [unit('A', 1, ['amp', 'amps', 'ampere', 'amperes', 'aac'])],
  rotation: [unit('1/s', 1, ['hz', 'rps']), unit('rpm', 1 / 60, ['1/min', 'r/min'])],
  duration: [
    unit('s', 1, ['sec', 'second', 'seconds']),
    unit('min', 60, ['minute', 'minutes', 'mins']),
    unit('h', 3600, ['hr', 'hrs', 'hour', 'hours']),
  ],
  count: [unit('counts', 1, ['count', 'particles', 'pcs'])],
} as const satisfies Record<QuantityKind, readonly Unit[]>;

/** The unit a bare number would be in SI. */
export const siUnit = (kind: QuantityKind): string => UNITS[kind][0].symbol;

/** Folds the many ways of writing a unit into one: case, blanks, dots, superscripts, the degree sign. */
export const normaliseUnit = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[\s.·]/g, '')
    .replace(/³/g, '3')
    .replace(/²/g, '2')
    .replace(/₂/g, '2')
    .replace(/[″”“]/g, '"')
    .replace(/[′’]/g, "'")
    .replace(/μ/g, 'µ')
    .replace(/\^/g, '');

/** Finds a unit of this quantity by its symbol or one of its aliases; undefined when there is none. */
export const findUnit = (kind: QuantityKind, text: string): Unit | undefined => {
  const wanted = normaliseUnit(text);
  return (UNITS[kind] as readonly Unit[]).find(
    (u) => normaliseUnit(u.symbol) === wanted || u.aliases.some((a) => normaliseUnit(a) === wanted),
  );
};

/** The first quantity that knows this unit, to say "that is a velocity, not a flow". */
export const quantityOfUnit = (text: string): QuantityKind | undefined =>
  (Object.keys(UNITS) as QuantityKind[]).find((kind) => findUnit(kind, text) !== undefined);
