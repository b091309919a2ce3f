import { newCode } from '../services/house/passphrase';
import { leadSignsIn } from '../repositories/people';
import type { Context } from '../services/yard/user-action';

let code: string | null = null;

/** The code of this run, with which the first lead signs in. Nobody else can sign in before that. */
export const firstCode = (): string | null => code;

/** Makes the code and prints it to the server's own console, when no lead can sign in yet. */
export const offerFirstCode = async ({ db }: Context, say: (text: string) => void): Promise<void> => {
  if (await leadSignsIn(db)) return;
  code = newCode();
  say(`No lead can sign in yet. The first one opens /sign-in and uses this code, once: ${code}`);
};
