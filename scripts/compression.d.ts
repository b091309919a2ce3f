declare module 'compression' {
  import type { IncomingMessage, ServerResponse } from 'node:http';

  type Filter = (request: IncomingMessage, response: ServerResponse) => boolean;
  interface Compression {
    (options?: {
      readonly filter?: Filter;
    }): (request: IncomingMessage, response: ServerResponse, next: () => void) => void;
    readonly filter: Filter;
  }
  const compression: Compression;
  export default compression;
}
