export type Transport = 'udp' | 'tcp';

/** Where a packet for `address` really goes. */
export interface Route {
  readonly address: string;
  readonly port: number;
  readonly transport: Transport;
  readonly toAddress: string;
  readonly toPort: number;
}

/**
 * Maps documentation addresses and standard ports to loopback ports in the lab and the tests; empty in production,
 * where every address is itself.
 */
export class RouteTable {
  private readonly routes = new Map<string, { address: string; port: number }>();

  constructor(routes: readonly Route[] = []) {
    for (const route of routes) this.add(route);
  }

  add(route: Route): void {
    this.routes.set(`${route.transport}/${route.address}/${route.port}`, { address: route.toAddress, port: route.toPort });
  }

  resolve(address: string, port: number, transport: Transport): { address: string; port: number } {
    return this.routes.get(`${transport}/${address}/${port}`) ?? { address, port };
  }

  /** True if packets there go where the table says. */
  leads(address: string, port: number, transport: Transport): boolean {
    return this.routes.has(`${transport}/${address}/${port}`);
  }

  list(): Route[] {
    return [...this.routes].map(([key, to]) => {
      const [transport, address, port] = key.split('/');
      return { transport: transport as Transport, address: address!, port: Number(port), toAddress: to.address, toPort: to.port };
    });
  }
}
