import net from 'node:net';

/** Stands between the server and its database, so that a test can cut the line and mend it. */
export interface CuttableProxy {
  port: number;
  cut(): void;
  mend(): void;
  close(): Promise<void>;
}

export async function startProxy(targetPort: number): Promise<CuttableProxy> {
  const open = new Set<net.Socket>();
  let whole = true;
  const proxy = net.createServer((incoming) => {
    if (!whole) {
      incoming.destroy();
      return;
    }
    const outgoing = net.connect(targetPort, '127.0.0.1');
    for (const socket of [incoming, outgoing]) {
      open.add(socket);
      socket.on('error', () => socket.destroy());
      socket.on('close', () => {
        open.delete(socket);
        incoming.destroy();
        outgoing.destroy();
      });
    }
    incoming.pipe(outgoing).pipe(incoming);
  });
  await new Promise<void>((resolve) => proxy.listen(0, '127.0.0.1', resolve));
  return {
    port: (proxy.address() as net.AddressInfo).port,
    cut() {
      whole = false;
      for (const socket of open) socket.destroy();
    },
    mend() {
      whole = true;
    },
    close() {
      for (const socket of open) socket.destroy();
      return new Promise((resolve) => proxy.close(() => resolve()));
    },
  };
}
