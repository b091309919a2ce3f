import { newCode } from '../services/passphrase';
import { leadSignsIn } from '../repositories/people';
import type { Context } from '../services/user-action';

let code: string | null = null;

/** Of this run: with it the first lead lets himself in. Nobody else has a way in then. */
export const firstCode = (): string | null => code;

/** Makes the code and says it where only whoever started the server reads it, where no lead can sign in yet. */
export const offerFirstCode = async ({ db }: Context, say: (text: string) => void): Promise<void> => {
  if (await leadSignsIn(db)) return;
  code = newCode();
  say(`No lead can sign in yet. The first one opens /sign-in and uses this code, once: ${code}`);
};
