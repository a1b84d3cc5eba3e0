import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Has a server listen on a port of its own on this machine. @returns its address */
export const listening = (server: Server): Promise<string> =>
  new Promise((done) =>
    server.listen(0, '127.0.0.1', () => done(`http://127.0.0.1:${(server.address() as AddressInfo).port}`)),
  );
