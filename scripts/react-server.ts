// The React server functions the framework needs. A page is rendered in one go: a stream of bytes would take half as
// long again.
import { renderToStaticMarkup, renderToString } from 'react-dom/server.node';
import type { ReactNode } from 'react';

interface Options {
  readonly identifierPrefix?: string;
}

const encoder = new TextEncoder();

/** In the shape of a stream of one piece. */
const renderToReadableStream = (node: ReactNode, { identifierPrefix }: Options) => {
  const value = encoder.encode(renderToString(node, identifierPrefix === undefined ? {} : { identifierPrefix }));
  return Promise.resolve({ getReader: () => ({ read: () => Promise.resolve({ done: true, value }) }) });
};

export default { renderToString, renderToStaticMarkup, renderToReadableStream };
