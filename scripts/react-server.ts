// What the framework asks of React on the server, with a page's parts drawn in one go: nothing here is drawn in pieces,
// and as a stream of bytes, decoded again, a page takes half as long again.
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
