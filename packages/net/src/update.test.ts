import { Message, Name, RCODE, SetChange, UpdatePart, reply, rrsetFromText, updateParts } from '@wanderon/core';
import { DnsClient } from './client';
import { RefusedChanges, sendUpdates } from './update';

const ZONE = Name.parse('canoe.test.');
const KEY = { name: Name.parse('a.key.'), algorithm: 'hmac-sha256', secret: new Uint8Array(32) } as const;
const added = (owner: string, type: string, data: string): SetChange => {
  const after = rrsetFromText({ owner: `${owner}.canoe.test.`, type, ttl: 60, data: [data] });
  return { owner: after.owner, type: after.type, before: undefined, after };
};
const textOf = (octets: number): string => Array.from({ length: Math.ceil(octets / 250) }, () => `"${'x'.repeat(249)}"`).join(' ');

/** A server that answers each message once others that were sent beside it are there, with what `refuses` says of its owners. */
class Server {
  private readonly open = new Set<ReadonlySet<string>>();
  /** Owners of the messages that were on their way at once, each time that one came. */
  readonly seen: (readonly ReadonlySet<string>[])[] = [];

  constructor(private readonly refuses: (owners: ReadonlySet<string>) => boolean = () => false) {}

  readonly client = {
    exchange: async (_server: unknown, message: Message): Promise<Message> => {
      const owners = new Set(message.authorities.map((record) => record.owner.key));
      this.open.add(owners);
      this.seen.push([...this.open]);
      await new Promise((resolve) => setImmediate(resolve));
      this.open.delete(owners);
      return { ...reply(message, {}), rcode: this.refuses(owners) ? RCODE.REFUSED : RCODE.NOERROR };
    },
  } as unknown as DnsClient;

  send(changes: readonly SetChange[]): Promise<number> {
    return sendUpdates(this.client, { address: '192.0.2.1' }, ZONE, changes, KEY);
  }

  get abreast(): number[] {
    return this.seen.map((owners) => owners.length);
  }
}

describe('updates', () => {
  const many = Array.from({ length: 40 }, (_, index) => added(`name-${index}`, 'TXT', textOf(8000)));
  const parts: readonly UpdatePart[] = updateParts(ZONE, many);

  it('begin with one alone, and go several at a time once it is taken', async () => {
    const server = new Server();
    expect(await server.send(many)).toBe(parts.length);
    expect(server.abreast.slice(0, 3)).toEqual([1, 1, 2]);
    expect(Math.max(...server.abreast)).toBe(8);
  });

  it('tell how many changes took effect after each message that was taken, and none that was refused', async () => {
    const told: number[] = [];
    const server = new Server((owners) => owners.has(many[7]!.owner.key));
    const sent = sendUpdates(server.client, { address: '192.0.2.1' }, ZONE, many, KEY, { onTaken: (changes) => told.push(changes) });
    await expect(sent).rejects.toBeInstanceOf(RefusedChanges);
    expect(told.length).toBeGreaterThan(parts.length - 2);
    expect([...told].sort((a, b) => a - b)).toEqual(told);
    expect(told.at(-1)).toBe(many.length - 1);
  });

  it('are never on their way two at a time where they are about one owner: the later ones rest on the earlier ones', async () => {
    const types = Array.from({ length: 12 }, (_, index) => added('busy', `TYPE${65_400 + index}`, `\\# 9000 ${'00'.repeat(9000)}`));
    const server = new Server();
    const changes = [...many.slice(0, 4), ...types, ...many.slice(4, 12)];
    expect(await server.send(changes)).toBe(updateParts(ZONE, changes).length);
    for (const owners of server.seen) expect(owners.filter((one) => one.has(types[0]!.owner.key)).length).toBeLessThan(2);
    expect(Math.max(...server.abreast)).toBeGreaterThan(1);
  });

  it('of which one row is refused name it, and all else is taken', async () => {
    const odd = many[17]!;
    const server = new Server((owners) => owners.has(odd.owner.key));
    await expect(server.send(many)).rejects.toEqual(expect.objectContaining({ constructor: RefusedChanges, changes: [odd] }));
    const taken = new Set(server.seen.flatMap((owners) => owners.flatMap((one) => (one.has(odd.owner.key) ? [] : [...one]))));
    expect(taken.size).toBe(many.length - 1);
  });
});
