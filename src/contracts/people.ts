import { z } from 'zod';
import { KEY_PURPOSES, ROLES } from '@/core/people/person';
import { Day } from './day';
import { ClientId, Initials } from './requests';

/** Long enough to be a phrase, short enough to be hashed. Length is what counts (NIST SP 800-63B 5.1.1.2). */
export const LEAST_PASSPHRASE = 12;
const MOST_PASSPHRASE = 200;
const Passphrase = z.string().min(LEAST_PASSPHRASE).max(MOST_PASSPHRASE);
const Code = z.string().trim().max(40);
export const RoleName = z.enum(ROLES);
export const KeyPurposeName = z.enum(KEY_PURPOSES);

export const SignInBody = z.strictObject({
  clientId: ClientId,
  initials: Initials,
  passphrase: z.string().min(1).max(MOST_PASSPHRASE),
});
export type SignInBody = z.infer<typeof SignInBody>;

/** Signs out: here, or wherever this person is signed in. */
export const EndSessionBody = z.strictObject({ clientId: ClientId, everywhere: z.boolean() });
export type EndSessionBody = z.infer<typeof EndSessionBody>;

/** A passphrase is chosen with a code: the first lead's, printed at the start, or one a lead hands out. */
export const ChoosePassphraseBody = z.strictObject({
  clientId: ClientId,
  initials: Initials,
  name: z.string().trim().max(80),
  code: Code,
  passphrase: Passphrase,
});
export type ChoosePassphraseBody = z.infer<typeof ChoosePassphraseBody>;

export const PersonBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  initials: Initials,
  name: z.string().trim().min(1).max(80),
  role: RoleName,
  mayContain: z.boolean(),
  maskFitOn: Day.nullable(),
  trainedOn: Day.nullable(),
  active: z.boolean(),
});
export type PersonBody = z.infer<typeof PersonBody>;

export const OfPersonBody = z.strictObject({ clientId: ClientId, by: Initials, initials: Initials });
export type OfPersonBody = z.infer<typeof OfPersonBody>;

export const KeyBody = z.strictObject({
  clientId: ClientId,
  by: Initials,
  purpose: KeyPurposeName,
  name: z.string().trim().min(1).max(80),
});
export type KeyBody = z.infer<typeof KeyBody>;

export const RevokeKeyBody = z.strictObject({ clientId: ClientId, by: Initials, id: z.int().positive() });
export type RevokeKeyBody = z.infer<typeof RevokeKeyBody>;

export const OpenHereBody = z.strictObject({ clientId: ClientId, by: Initials, openHere: z.boolean() });
export type OpenHereBody = z.infer<typeof OpenHereBody>;

/** Something shown once: a code to choose a passphrase with, or a program's key. */
export const SecretReply = z.strictObject({ secret: z.string(), until: z.string().nullable() });
export type SecretReply = z.infer<typeof SecretReply>;
