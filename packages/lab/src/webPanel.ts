import { createHash } from 'node:crypto';
import { Instant, showName } from '@wanderon/core';
import { escapeHtml, page } from './page';

/** Seconds for which Larkspur's own check goes on saying “not connected” after it could know better. */
const SLOW = 900;

/** A site at Larkspur: verified once its token was seen; connected by its own check, which follows late. */
interface Site {
  verified: boolean;
  rightSince?: Instant | undefined;
}

/**
 * A web host that knows a domain only once it was added in its panel, asks for a token of its own for each of them before it believes
 * that it is ours, and whose own check says “not connected” for a while although the site works.
 */
export class WebPanel {
  private readonly sites = new Map<string, Site>();

  constructor(
    private readonly seed: string,
    private readonly now: () => Instant,
    /** What the world says at a name; data in presentation form. */
    private readonly ask: (owner: string, type: 'TXT' | 'A') => Promise<readonly string[]>,
  ) {}

  /** What is kept between starts. */
  saved(): readonly (readonly [string, Site])[] {
    return [...this.sites];
  }

  load(saved: ReturnType<WebPanel['saved']>): void {
    for (const [zone, site] of saved) this.sites.set(zone, site);
  }

  knows(zone: string): boolean {
    return this.sites.has(zone);
  }

  add(zone: string): void {
    if (!this.sites.has(zone)) this.sites.set(zone, { verified: false, rightSince: undefined });
  }

  tokenOf(zone: string): string {
    return `larkspur-site=${createHash('sha256').update(`${this.seed}/${zone}`).digest('hex').slice(0, 16)}`;
  }

  /** What “Check now” does; throws a RangeError where the domain was not added. */
  async check(zone: string, addresses: readonly string[]): Promise<void> {
    const site = this.sites.get(zone);
    if (!site) throw new RangeError(`${zone} was not added`);
    const texts = await this.ask(`_larkspur.${zone}`, 'TXT');
    site.verified ||= texts.includes(`"${this.tokenOf(zone)}"`);
    const leads = (await this.ask(zone, 'A')).some((address) => addresses.includes(address));
    site.rightSince = leads ? (site.rightSince ?? this.now()) : undefined;
  }

  stateOf(zone: string): 'unknown' | 'waiting' | 'not connected' | 'connected' {
    const site = this.sites.get(zone);
    if (!site) return 'unknown';
    if (!site.verified) return 'waiting';
    return site.rightSince !== undefined && this.now() - site.rightSince >= SLOW ? 'connected' : 'not connected';
  }

  page(zone: string | null, addresses: readonly string[]): string {
    if (zone === null || !this.sites.has(zone)) {
      const links = [...this.sites.keys()].map((one) => `<li><a href="/larkspur?zone=${encodeURIComponent(one)}">${shown(one)}</a>: ${this.stateOf(one)}</li>`);
      return page(
        'Domains',
        'Larkspur Sites',
        `<form method="post" action="/larkspur/domain"><label>Domain <input type="text" name="name"></label> <button>Add domain</button></form><ul>${links.join('')}</ul>`,
      );
    }
    const told = this.stateOf(zone);
    return page(
      shown(zone),
      'Larkspur Sites',
      `<p>State: <b class="${told === 'connected' ? 'good' : 'bad'}">${told === 'waiting' ? 'ownership not proved' : told}</b></p>
<table><tr><th>To prove that it is yours</th><td>_larkspur TXT ${escapeHtml(this.tokenOf(zone))}</td></tr><tr><th>Your site is at</th><td>${addresses.map(escapeHtml).join('<br>')}<br>alias: sites.larkspur.example</td></tr></table>
<form method="post" action="/larkspur/check"><input type="hidden" name="zone" value="${escapeHtml(zone)}"><button>Check now</button></form><p><a href="/larkspur">All domains</a></p>`,
    );
  }
}

function shown(zone: string): string {
  return escapeHtml(showName(zone.replace(/\.$/, '')));
}
