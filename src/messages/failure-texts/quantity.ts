import { fixed } from '@/core/units';
import type { FailureCode } from '@/core/failure/failure';
import { type Facts, type Text, quantity, text, inWords } from './facts';

/** Refusals of a typed figure. */
export const QUANTITY_TEXTS = {
  'quantity.empty': (f) => [
    'Nothing typed',
    `Type a ${quantity(f['kind'])}.`,
    'A number with its unit, such as 61 cfm.',
  ],
  'quantity.too-long': (f) => [
    'Too long',
    `That entry has ${text(f['length'])} characters.`,
    `One number and one unit, at most ${text(f['most'])} characters.`,
  ],
  'quantity.not-a-number': (f) => [
    'Not a number',
    `"${text(f['typed'])}" does not start with a number.`,
    'Write it like 61 cfm, 29,5 L/s or 92 inH2O.',
  ],
  'quantity.ambiguous-comma': (f) => [
    'Unclear comma',
    `"${text(f['typed'])}" could be thousands or decimals.`,
    'Leave the comma out for thousands, or use a point for decimals.',
  ],
  'quantity.unknown-unit': (f) => [
    'Unknown unit',
    `"${text(f['unit'])}" is not a unit of ${quantity(f['wanted'])} that Moorwind knows.`,
    'The units it takes are listed under the field.',
  ],
  'quantity.wrong-unit': (f) => [
    'Wrong kind of unit',
    `"${text(f['unit'])}" is a unit of ${quantity(f['is'])}; this field takes a ${quantity(f['wanted'])}.`,
    'Check the method chosen, or the unit on the meter.',
  ],
  'quantity.pounds': (f) => [
    'Pounds are not a suction',
    `${text(f['number'])} pounds is a weight. For suction, "pounds" usually means inches of water.`,
    'Read the gauge again and type inH2O, kPa or psi.',
  ],
  'quantity.unit-missing': (f) => [
    'Unit missing',
    `Say in which unit this ${quantity(f['kind'])} is.`,
    'The unit typed last is kept for the next reading.',
  ],
  'quantity.out-of-range': (f) => [
    'Out of range',
    `A ${quantity(f['kind'])} of ${inWords(f, 'value')} is outside ${inWords(f, 'low')} to ${inWords(f, 'high')}.`,
    'Check the number and its unit.',
  ],
  'quantity.negative': (f) => [
    'Below zero',
    `${text(f['number'])} ${text(f['unit'])} is below zero; air does not flow backwards through a running machine.`,
    'Turn the probe round, or zero the meter.',
  ],
  'suction.impossible': (f) => [
    'More than the air can give',
    `${text(f['number'])} ${text(f['unit'])} is at or above the pressure of the air itself, ${fixed(Number(f['barometricPa']) / 1000, 1)} kPa here. No machine can pull that much.`,
    'Technicians who say "pounds" usually read inches of water: try inH2O.',
  ],
} satisfies Partial<Record<FailureCode, (f: Facts) => Text>>;
