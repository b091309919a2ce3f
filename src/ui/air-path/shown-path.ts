import type { PathView } from '@/core/calibrate/path-view';
import { problemOf } from '@/messages/failures';

/** A machine's path with the sentence of its failure, so that a page need not load the sentences of all failures. */
export interface ShownPath extends PathView {
  /** Why it cannot be drawn, or why its figures are the typical ones; null when there is nothing to say. */
  readonly problem: string | null;
}

/** Adds the sentence of a path's failure. Called on the server. */
export const shownPath = (view: PathView): ShownPath => {
  const why = view.failure ?? (view.basis.kind === 'template' ? view.basis.why : null);
  const said = why && problemOf(why);
  return { ...view, problem: said && `${said.sentence} ${said.hint}` };
};
