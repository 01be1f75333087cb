import {
  Message,
  Name,
  OPCODE,
  RCODE,
  TYPE_CODES,
  TsigError,
  TsigKey,
  decodeMessage,
  encodeMessage,
  encodeWithin,
  readTsig,
  reply,
  signMessage,
  verifyMessage,
} from '@wanderon/core';
import { RouteTable, hasher } from '@wanderon/net';
import { AuthZone } from './authZone';
import { Dressing } from './dressing';
import { LabClock } from './labClock';
import { Asked, DnsListener } from './listener';

export interface DnsHostHabits {
  /** Keys that may transfer; `open` lets anybody. */
  readonly transfer: 'open' | 'key' | 'none';
  readonly update: 'key' | 'none';
  readonly key: TsigKey | undefined;
  /** Lab seconds after which each further server has what the first one has. */
  readonly lag: number;
  /** In the order in which they are put on. */
  readonly dressings?: readonly Dressing[];
  /** Servers, counted from 0, that know no zone. */
  readonly lame?: readonly number[];
}

/** For tests: called as a question or an update arrives, and once an update was applied, before its answer leaves. */
export interface HostWatcher {
  /** A question came; servers count from 0. */
  asked?(host: string, server: number, question: { name: Name; type: number }, transport: 'udp' | 'tcp'): void;
  /** `drop`: the message is lost on its way and never applied. */
  arrived?(host: string, message: Message): Promise<'drop' | void> | 'drop' | void;
  applied?(host: string, message: Message, changed: boolean): Promise<void> | void;
}

/** A DNS host: a first server with the zones, and further ones that follow it after a while. */
export class DnsHost {
  readonly zones = new Map<string, AuthZone>();
  private readonly copies: Map<string, AuthZone>[];
  private readonly listeners: DnsListener[] = [];

  constructor(
    readonly name: string,
    readonly addresses: readonly (readonly string[])[],
    private readonly habits: DnsHostHabits,
    private readonly clock: LabClock,
    private readonly changed: () => void,
    private readonly watcher: HostWatcher,
    private readonly time: () => number,
  ) {
    this.copies = addresses.slice(1).map(() => new Map<string, AuthZone>());
  }

  async open(routes: RouteTable): Promise<void> {
    for (const [index, group] of this.addresses.entries()) {
      const zones = index === 0 ? this.zones : this.copies[index - 1]!;
      for (const address of group)
        this.listeners.push(
          await DnsListener.open(address, routes, (asked) => this.answer(asked, this.habits.lame?.includes(index) ? new Map() : zones, index)),
        );
    }
  }

  close(): void {
    for (const listener of this.listeners.splice(0)) listener.close();
  }

  /** Takes a zone in, at every server at once. */
  load(zone: AuthZone): void {
    this.zones.set(zone.origin.key, zone);
    for (const copy of this.copies) copy.set(zone.origin.key, zone.copy());
  }

  /** Call after every change at the first server: the others follow, the later the further down they stand. */
  spread(zone: AuthZone): void {
    this.changed();
    for (const [index, copy] of this.copies.entries()) {
      this.clock.alarm(this.clock.now() + this.habits.lag * (index + 1), () => copy.set(zone.origin.key, zone.copy()));
    }
  }

  zoneFor(name: Name, zones: ReadonlyMap<string, AuthZone> = this.zones): AuthZone | undefined {
    for (let at = name; ; at = at.parent) {
      const zone = zones.get(at.key);
      if (zone || at.isRoot) return zone;
    }
  }

  private async answer(asked: Asked, zones: ReadonlyMap<string, AuthZone>, server: number): Promise<Uint8Array[]> {
    const request = decodeMessage(asked.raw);
    if (request.response) return [];
    const question = request.questions[0];
    const size = asked.transport === 'tcp' ? 65_535 : Math.max(512, request.edns?.udpSize ?? 512);
    const send = (message: Message, mac?: Uint8Array): Uint8Array => {
      const wire = encodeWithin(message, size - (mac ? 150 : 0));
      return mac && this.habits.key ? signMessage(wire, this.habits.key, this.time(), hasher, { priorMac: mac }).message : wire;
    };
    if (!question) return [send(reply(request, { rcode: RCODE.FORMERR }))];
    let mac: Uint8Array | undefined;
    if (request.tsig) {
      const checked = this.authenticate(asked.raw, request);
      if (checked.refusal) return [checked.refusal];
      mac = checked.mac;
    }
    if (request.opcode === OPCODE.update) {
      const answer = await this.update(request, server === 0, mac !== undefined);
      return answer ? [send(answer, mac)] : [];
    }
    if (request.opcode !== OPCODE.query) return [send(reply(request, { rcode: RCODE.NOTIMP }), mac)];
    this.watcher.asked?.(this.name, server, question, asked.transport);
    const zone = this.zoneFor(question.name, zones);
    if (question.type === TYPE_CODES.AXFR) {
      if (!zone || !zone.origin.equals(question.name)) return [send(reply(request, { rcode: RCODE.NOTAUTH }), mac)];
      const allowed = this.habits.transfer === 'open' || (this.habits.transfer === 'key' && mac !== undefined);
      if (!allowed || asked.transport !== 'tcp') return [send(reply(request, { rcode: RCODE.REFUSED }), mac)];
      return this.transfer(request, zone, mac);
    }
    // The DS set of a zone stands in its parent (RFC 4035 §3.1.4.1).
    const holder = question.type === TYPE_CODES.DS && zone?.origin.equals(question.name) ? (this.zoneFor(question.name.parent, zones) ?? zone) : zone;
    if (!holder) return [send(reply(request, { rcode: RCODE.REFUSED }), mac)];
    const dressed = (this.habits.dressings ?? []).reduce((found, dress) => dress(found, question, holder, server), holder.lookUp(question.name, question.type));
    return [send(reply(request, dressed), mac)];
  }

  private async update(request: Message, first: boolean, signed: boolean): Promise<Message | undefined> {
    if ((await this.watcher.arrived?.(this.name, request)) === 'drop') return undefined;
    const zone = this.zones.get(request.questions[0]!.name.key);
    if (!zone) return reply(request, { rcode: RCODE.NOTAUTH });
    if (this.habits.update !== 'key' || !signed || !first) return reply(request, { rcode: RCODE.REFUSED });
    const { rcode, changed } = zone.update(request);
    if (changed) this.spread(zone);
    await this.watcher.applied?.(this.name, request, changed);
    return reply(request, { rcode });
  }

  private transfer(request: Message, zone: AuthZone, mac: Uint8Array | undefined): Uint8Array[] {
    const records = zone.transfer();
    const out: Uint8Array[] = [];
    let prior = mac;
    for (let at = 0; at < records.length; at += 100) {
      const wire = encodeMessage(reply(request, { authoritative: true, answers: records.slice(at, at + 100), edns: undefined }));
      if (!prior) out.push(wire);
      else {
        const signed = signMessage(wire, this.habits.key!, this.time(), hasher, { priorMac: prior, timersOnly: at > 0 });
        prior = signed.mac;
        out.push(signed.message);
      }
    }
    return out;
  }

  private authenticate(raw: Uint8Array, request: Message): { mac?: Uint8Array; refusal?: Uint8Array } {
    const fields = readTsig(request)!;
    const key = this.habits.key;
    const refuse = (error: number, signed: boolean): { refusal: Uint8Array } => {
      const wire = encodeMessage(reply(request, { rcode: RCODE.NOTAUTH }));
      const as: TsigKey = key && fields.key.equals(key.name) ? key : { name: fields.key, algorithm: 'hmac-sha256', secret: new Uint8Array(1) };
      return { refusal: signMessage(wire, as, this.time(), hasher, signed ? { error, priorMac: fields.mac } : { error }).message };
    };
    if (!key || !fields.key.equals(key.name)) return refuse(RCODE.BADKEY, false);
    try {
      return { mac: verifyMessage(raw, request, key, this.time(), hasher) };
    } catch (error) {
      if (!(error instanceof TsigError)) throw error;
      return error.kind === 'time' ? refuse(RCODE.BADTIME, true) : refuse(error.kind === 'key' ? RCODE.BADKEY : 16, false);
    }
  }
}
