import { NetError } from './netError';

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

  /** `mayReach`: which addresses may be reached where no route leads. */
  constructor(
    routes: readonly Route[] = [],
    private readonly mayReach: (address: string) => boolean = () => true,
  ) {
    for (const route of routes) this.add(route);
  }

  add(route: Route): void {
    this.routes.set(`${route.transport}/${route.address}/${route.port}`, { address: route.toAddress, port: route.toPort });
  }

  /** Throws a NetError for an address that may not be reached: one that somebody else's zone gave, of this machine or its network. */
  resolve(address: string, port: number, transport: Transport): { address: string; port: number } {
    const to = this.routes.get(`${transport}/${address}/${port}`);
    if (!to && !this.mayReach(address))
      throw new NetError('refused', `${address} is not an address of the public internet, and is asked only where the configuration allows it`);
    return to ?? { address, port };
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
