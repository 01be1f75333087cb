import { IncomingMessage, Server, ServerResponse, createServer } from 'node:http';
import { AddressInfo } from 'node:net';
import { Name, NameError, RunningClock, TextError, WireError, showName } from '@wanderon/core';
import { PANELS, add, panelPage, remove } from './handPanel';
import type { Lab } from './lab';
import { escapeHtml, page } from './page';
import { formPage, listPage, mailPage, namesSent, reviewPage, sentPage } from './registrars';
import { DOMAINS, UNUSED } from './scenario/domains';

/** The lab's own pages: its clock and routes, the registrars' forms, and the panels of its hosts. */
export class LabControl {
  private server: Server | undefined;
  private url = '';

  constructor(private readonly lab: Lab) {}

  /** Where it answers: an address that begins with `http`. */
  async open(port: number): Promise<string> {
    this.server = createServer((request, response) => {
      this.serve(request, response).catch((error: unknown) => {
        // A panel refuses what it cannot read, and says so.
        const known = [RangeError, NameError, TextError, WireError].some((kind) => error instanceof kind);
        if (!known) console.error(error);
        response
          .writeHead(known ? 400 : 500, { 'content-type': 'text/html; charset=utf-8' })
          .end(page('That did not work', 'Lab', `<p class="bad">${escapeHtml(known ? (error as Error).message : 'An error of the lab.')}</p>`));
      });
    });
    await new Promise<void>((resolve) => this.server!.listen(port, '127.0.0.1', resolve));
    this.url = `http://127.0.0.1:${(this.server.address() as AddressInfo).port}`;
    return this.url;
  }

  close(): void {
    this.server?.close();
    this.server?.closeAllConnections();
  }

  /** The clock, and when that was so by the machine's own, in milliseconds since 1970: on its way it goes on. */
  private clockNow(): RunningClock & { readonly sent: number } {
    return { ...this.lab.clock.state(), sent: performance.timeOrigin + performance.now() };
  }

  private async serve(request: IncomingMessage, response: ServerResponse): Promise<void> {
    const url = new URL(request.url ?? '/', this.url || 'http://127.0.0.1');
    const json = (value: unknown): void => void response.writeHead(200, { 'content-type': 'application/json' }).end(JSON.stringify(value));
    const html = (text: string): void => void response.writeHead(200, { 'content-type': 'text/html; charset=utf-8' }).end(text);
    const route = `${request.method} ${url.pathname}`;
    if (isForeign(request)) return void response.writeHead(403, { 'content-type': 'text/plain' }).end('Not from another site.\n');
    switch (route) {
      case 'GET /clock':
        return json(this.clockNow());
      case 'POST /clock': {
        const wish = new URLSearchParams(await body(request));
        const rate = wish.get('rate');
        const jump = wish.get('jump');
        if (rate !== null) this.lab.clock.setRate(Number(rate));
        if (jump !== null) this.lab.clock.forward(Number(jump));
        return json(this.clockNow());
      }
      case 'GET /clock/changes': {
        response.writeHead(200, { 'content-type': 'text/event-stream' });
        const send = (): void => void response.write(`data: ${JSON.stringify(this.clockNow())}\n\n`);
        send();
        const off = this.lab.clock.onChange(send);
        request.on('close', off);
        return;
      }
      case 'GET /routes':
        return json(this.lab.routes.list());
      case 'GET /scenario':
        return json(this.lab.scenario());
      case 'GET /registrar':
        return html(listPage([...DOMAINS, ...UNUSED], (zone) => this.lab.nameserversOf(zone)));
      case 'GET /registrar/domain': {
        const domain = this.lab.registered(url.searchParams.get('name') ?? '');
        return html(formPage(domain, this.lab.nameserversOf(domain.zone)));
      }
      case 'POST /registrar/review': {
        const form = new URLSearchParams(await body(request));
        const domain = this.lab.registered(form.get('name') ?? '');
        return html(reviewPage(domain, namesSent(domain, form.getAll('ns'))));
      }
      case 'POST /registrar/domain': {
        const form = new URLSearchParams(await body(request));
        const domain = this.lab.registered(form.get('name') ?? '');
        const names = namesSent(domain, form.getAll('ns'));
        this.lab.submitNameservers(domain, names);
        return html(sentPage(domain));
      }
      case 'GET /registrar/mail':
        return html(mailPage(this.lab.pending));
      case 'POST /registrar/mail': {
        const zone = new URLSearchParams(await body(request)).get('name') ?? '';
        this.lab.confirmNameservers(zone);
        return html(mailPage(this.lab.pending));
      }
      case 'GET /larkspur':
        return html(this.lab.larkspur.page(url.searchParams.get('zone'), this.lab.larkspurAt));
      case 'POST /larkspur/domain': {
        const zone = zoneName(new URLSearchParams(await body(request)).get('name'));
        this.lab.larkspur.add(this.lab.registered(zone).zone);
        this.lab.save();
        return html(this.lab.larkspur.page(zone, this.lab.larkspurAt));
      }
      case 'POST /larkspur/check': {
        const zone = zoneName(new URLSearchParams(await body(request)).get('zone'));
        await this.lab.larkspur.check(zone, this.lab.larkspurAt);
        this.lab.save();
        return html(this.lab.larkspur.page(zone, this.lab.larkspurAt));
      }
      case 'GET /quillmere':
        return html(this.panel());
      case 'POST /quillmere': {
        this.lab.addDomain('quillmere', this.lab.registered(zoneName(new URLSearchParams(await body(request)).get('name'))).zone);
        return html(this.panel());
      }
      default: {
        const [, id, act] = /^(?:GET|POST) \/panel\/([a-z]+)(?:\/(domain|add|delete))?$/.exec(route) ?? [];
        if (id && PANELS[id]) return html(this.handPanel(id, act, url, request.method === 'POST' ? new URLSearchParams(await body(request)) : undefined));
        response.writeHead(404).end();
      }
    }
  }

  /** A panel into which everything is typed; what it is told is stored as such a panel would. */
  private handPanel(id: string, act: string | undefined, url: URL, form: URLSearchParams | undefined): string {
    const host = this.lab.dnsHosts.get(id)!;
    const field = (name: string): string => form?.get(name) ?? '';
    if (!form || !act) return panelPage(id, host, url.searchParams.get('zone'));
    if (act === 'domain') {
      const name = this.lab.registered(zoneName(field('name'))).zone;
      this.lab.addDomain(id, name);
      return panelPage(id, host, name);
    }
    const zone = host.zones.get(Name.parse(field('zone')).key);
    if (!zone) throw new RangeError(`${field('zone')} is not held here`);
    if (act === 'delete') remove(zone, field('owner'), field('type'), field('data'));
    else add(PANELS[id]!, zone, { name: field('name'), type: field('type'), priority: field('priority'), value: field('value'), ttl: field('ttl') });
    host.spread(zone);
    return panelPage(id, host, field('zone'));
  }

  private panel(): string {
    const host = this.lab.dnsHosts.get('quillmere')!;
    const zones = DOMAINS.filter((domain) => host.zones.has(Name.parse(domain.zone).key));
    return page(
      'Zones of Fennel & Tide',
      'Quillmere DNS',
      `<form method="post" action="/quillmere"><label>Domain <input type="text" name="name"></label> <button>Add domain</button></form><ul>${zones.map((domain) => `<li>${escapeHtml(shown(domain.zone))}</li>`).join('')}</ul>`,
    );
  }
}

/** This machine's own names: another one that leads here is a page of somebody else that was led here. */
const HERE = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/;

/** A request that a page of another site makes: a form of ours names this origin, a program none (RFC 6454 §7). */
function isForeign({ headers, method }: IncomingMessage): boolean {
  const { origin, host = '' } = headers;
  if (!HERE.test(host)) return true;
  return method !== 'GET' && origin !== undefined && origin !== `http://${host}`;
}

/** As it is typed into a panel, with or without the final dot. */
function zoneName(typed: string | null): string {
  return `${(typed ?? '').trim().replace(/\.$/, '')}.`;
}

function shown(zone: string): string {
  return showName(zone.replace(/\.$/, ''));
}

async function body(request: IncomingMessage): Promise<string> {
  let text = '';
  for await (const chunk of request) {
    text += String(chunk);
    if (text.length > 20_000) throw new RangeError('the form is too large');
  }
  return text;
}
