import { RequestListener, Server, createServer } from 'node:http';
import { createServer as createSecureServer } from 'node:https';
import { AddressInfo } from 'node:net';
import { RouteTable } from '@wanderon/net';
import { LabAuthority } from './labAuthority';
import { escapeHtml, page } from './page';
import { rdapDomain } from './rdapDomain';
import { MAIL_POLICY, ScenarioDomain } from './scenario/domains';
import { SiteHabits } from './scenario/hosts';
import { RDAP } from './scenario/world';
import { infrastructureZones } from './scenario/zones';

/** Everything in the lab that is reached as `http` and `https`: the sites at web hosts, and the registry's RDAP. */
export class LabSites {
  readonly authority = new LabAuthority();
  private readonly servers: Server[] = [];

  constructor(
    private readonly routes: RouteTable,
    private readonly domains: readonly ScenarioDomain[],
  ) {}

  /** Sites as hosts serve them: HTTP leads to HTTPS, the apex to `www`, and the path is kept where the host does not lose it. */
  async openWeb(
    name: string,
    addresses: readonly string[],
    { plain = false, toFront = [] }: SiteHabits = {},
    knows: (zone: string) => boolean = () => true,
    unknownStatus = 404,
  ): Promise<void> {
    const serve =
      (secure: boolean): RequestListener =>
      (request, response) => {
        const site = (request.headers.host ?? '').toLowerCase();
        const domain = this.domains.find(({ zone }) => `${site}.` === zone);
        if (!knows(`${site.replace(/^www\./, '')}.`)) {
          response
            .writeHead(unknownStatus, { 'content-type': 'text/html; charset=utf-8' })
            .end(page('No site here', name, '<p>This domain is not connected to a site.</p>'));
          return;
        }
        if (secure && site.startsWith('mta-sts.') && request.url === MAIL_POLICY.path) {
          response.writeHead(200, { 'content-type': 'text/plain' }).end(MAIL_POLICY.text);
          return;
        }
        if (!secure || domain) {
          const path = domain && toFront.includes(domain.zone) ? '/' : (request.url ?? '/');
          response.writeHead(301, { location: `https://${domain ? 'www.' : ''}${site}${path}` }).end();
          return;
        }
        const headers = plain ? {} : { 'strict-transport-security': 'max-age=31536000' };
        response
          .writeHead(200, { 'content-type': 'text/html; charset=utf-8', server: name, ...headers })
          .end(page(site, site, `<p>The site of ${escapeHtml(site)}.</p>`));
      };
    await this.open(addresses, serve);
  }

  /** `nameserversOf`: what the registry publishes of a zone; `now` in seconds. */
  async openRdap(nameserversOf: (zone: string) => readonly string[], now: () => number): Promise<void> {
    await this.open([RDAP.address], () => (request, response) => {
      if (request.url === '/dns.json') {
        response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(serviceList()));
        return;
      }
      const name = decodeURIComponent(/^\/domain\/([^/?]+)$/.exec(request.url ?? '')?.[1] ?? '').toLowerCase();
      const domain = [...this.domains, ...infrastructureZones().map(({ zone, host }) => ({ zone, client: host, extra: [] }))].find(
        ({ zone }) => zone === `${name}.`,
      );
      const type = { 'content-type': 'application/rdap+json' };
      if (!domain) response.writeHead(404, type).end(JSON.stringify({ errorCode: 404, title: 'Not found' }));
      else response.writeHead(200, type).end(JSON.stringify(rdapDomain(domain, nameserversOf(domain.zone), now())));
    });
  }

  close(): void {
    for (const server of this.servers) {
      server.close();
      server.closeAllConnections();
    }
  }

  private async open(addresses: readonly string[], serve: (secure: boolean) => RequestListener): Promise<void> {
    const plain = createServer(serve(false));
    const secure = createSecureServer({ SNICallback: (name, done) => done(null, this.authority.contextFor(name)) }, serve(true));
    for (const [server, port] of [
      [plain, 80],
      [secure, 443],
    ] as const) {
      await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
      const { port: toPort } = server.address() as AddressInfo;
      for (const address of addresses) this.routes.add({ address, port, transport: 'tcp', toAddress: '127.0.0.1', toPort });
      this.servers.push(server);
    }
  }
}

/** The list of registration data services in the form of the bootstrap registry (RFC 9224 §3), of this world alone. */
function serviceList() {
  return {
    ...{ version: '1.0', publication: '2021-01-04T00:00:00Z', description: 'Registration data services of the lab' },
    services: [[['example'], [`https://${RDAP.name}/`]]],
  };
}
