import type { KeyPurpose, PaperGap, Role } from '@/core/people/person';

export const ROLE_WORDS: Readonly<Record<Role, string>> = { look: 'look', technician: 'technician', lead: 'lead' };

export const ROLE_HELP: Readonly<Record<Role, string>> = {
  look: 'reads everything, records nothing',
  technician: 'records work',
  lead: 'records work, keeps people and settings',
};

export const KEY_WORDS: Readonly<Record<KeyPurpose, string>> = {
  calendar: 'calendar feed',
  label: 'label on a machine',
  meter: 'bridge of a meter',
};

export const GAP_WORDS: Readonly<Record<PaperGap, string>> = {
  noFit: 'no mask fit test on file',
  fitOld: 'mask fit test over a year old',
  noTraining: 'no training on file',
};

/** Entries of the access log. */
export const AUDIT_WORDS = {
  signedIn: 'signed in',
  wrongPassphrase: 'wrong passphrase',
  signedOut: 'signed out',
  signedOutEverywhere: 'signed out everywhere',
  passphraseChosen: 'chose a passphrase',
  wrongCode: 'wrong code',
  personSaved: 'changed a person',
  codeMade: 'made a code for a passphrase',
  keyMade: 'made a key',
  keyRevoked: 'withdrew a key',
  settingChanged: 'changed a setting',
  exported: 'exported',
  takenIn: 'imported',
} as const;
