import type { Medium } from '@/core/constants/media';

// Texts of the look-up page behind the work desk. Source: handbook of the trade, sections 8, 9, 15 and 17.

/** What each class is for, and what a label may say. Source: EN/IEC 60335-2-69 Annex AA, from memory of the table. */
export const CLASS_LINES: Readonly<Record<'L' | 'M' | 'H', { readonly dust: string; readonly label: string }>> = {
  L: {
    dust: 'Dust with a limit of more than 1 mg/m³.',
    label: 'The whole machine as tested, with its own filter and bag in place.',
  },
  M: {
    dust: 'Dust with a limit of 0.1 mg/m³ or more; wood.',
    label:
      'As tested and complete; it warns below 20 m/s in the hose. A new main filter suspends the word until it is screened.',
  },
  H: {
    dust: 'Dust with a limit under 0.1 mg/m³, carcinogens, pathogens.',
    label:
      'As tested and complete. A new filter suspends the word until a competent person has tested what gets through.',
  },
};

/** Common practice, no published source. */
export const MEDIUM_LIFE: Readonly<Record<Medium, string>> = {
  mesh: 'years',
  foam: 'years',
  fleeceBag: 'by fill; by time where it holds organic matter',
  clothBag: 'years',
  paperBag: 'by fill; by time where it holds organic matter',
  pleatedPolyester: 'by gauge or loss of air; about a year',
  fineDustFleece: 'about a year',
  nanofibre: 'years, in a collector with a stiff cage',
  hepaGlass: 'a year, or by gauge, or when damaged',
  carbonBed: 'by smell, timer or indicator: flow never shows it',
};

/** Common claims in the trade, and the facts. Source: handbook of the trade, section 17. */
export const SAYINGS: readonly { readonly said: string; readonly right: string }[] = [
  {
    said: 'HEPA catches 0.03 micron.',
    right: 'The figure is 99.97 % at 0.3 µm. Far smaller grains are caught better: they wander into the fibres.',
  },
  {
    said: 'MERV 15 is one step below HEPA.',
    right:
      'HEPA is not on that scale, and MERV 16 lies between. MERV 15 lets through 15 % of 0.3 to 1 µm where HEPA lets 0.03 %.',
  },
  {
    said: 'It has 40 pounds of suction.',
    right:
      'Suction is a pressure: kPa, mbar or inches of water. What carries dust is air, in L/s or cfm, and both are measured.',
  },
  {
    said: 'The kit makes it compliant.',
    right: 'A class belongs to the tested machine. A better filter does not give a shop vacuum a class.',
  },
  {
    said: 'Wash the HEPA, it flows well again.',
    right:
      'It does, because it has holes or its fibres have come apart. Easy airflow does not prove a filter. Replace the HEPA.',
  },
  {
    said: 'The gauge is green, so it filters.',
    right:
      'A gauge reads low when little air flows: a plugged hose, low voltage or a hole in the filter make it green too.',
  },
  {
    said: 'The two live wires do not matter.',
    right: 'They do. Conductors are not swapped and no smaller plug is fitted: a licensed electrician does it.',
  },
  {
    said: 'A seasoned filter is better.',
    right:
      'It holds back more and lets less air through. A rating is stated clean; look at both before you leave it in.',
  },
];
