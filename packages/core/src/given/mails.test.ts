import { Name } from '../dns/name';
import { rrsetFromText } from '../dns/record';
import { readText } from '../reading/readText';
import { proposeRulings } from '../rebuild/propose';
import { newText } from '../testing/texts/newTexts';
import { GivenItem } from './givenItem';
import { fittingWays } from './fittingWays';
import { frontOf } from './front';

/** Mails and pages of new places in six languages; GIVEN_MAILS=5000 makes as many plans. */
const MAILS = Number(process.env.GIVEN_MAILS ?? 200);
const OLD = ['198.51.100.80', '2001:db8:5a17::80'];
const NAMESERVERS = ['ns1.saltmarsh.example.', 'ns2.saltmarsh.example.'];

it('makes the plan that the mail of a new place wants: 19 of 20 without a word, and none wrong unasked', () => {
  let right = 0;
  const wrong: string[] = [];
  for (let seed = 1; seed <= MAILS; seed++) {
    const mail = newText(seed + 500_000);
    const zone = Name.parse(`${mail.zone}.`);
    const name = (owner: string): string => Name.parse(owner, zone).toString().toLowerCase();
    const found = [
      { owner: name('@'), type: 'A', ttl: 3600, data: [OLD[0]!] },
      { owner: name('@'), type: 'AAAA', ttl: 3600, data: [OLD[1]!] },
      { owner: name('www'), type: 'A', ttl: 3600, data: [OLD[0]!] },
      { owner: name('@'), type: 'MX', ttl: 3600, data: ['10 mx1.post.example.'] },
      { owner: name('archive'), type: 'A', ttl: 3600, data: ['192.0.2.77'] },
    ].map(rrsetFromText);
    const given = readText(mail.text, { zone: zone.toString(), as: 'new', own: [] }).finds.flatMap((find): GivenItem[] =>
      find.kind === 'name' || find.trust === 'out' || find.data === ''
        ? []
        : [{ kind: find.kind, owner: find.owner, type: find.type, data: find.data, doubts: find.questions }],
    );
    const front = frontOf({
      given,
      said: {},
      zone,
      scope: { kind: 'whole' },
      found,
      pages: [],
      nameservers: NAMESERVERS,
      oldWeb: [],
      knownWeb: () => undefined,
    });
    const newDns = { name: 'New DNS', nameservers: [], addresses: [], aliasTarget: undefined, requires: [] };
    const rulings = front.withGiven(proposeRulings(zone, found, { oldWeb: [], newDns, newWeb: front.newWeb }), {
      webMoves: front.newWeb !== undefined,
      byTicks: true,
    });
    const plan = new Map(
      rulings.flatMap((row) => (row.planned ? [[`${row.owner.toLowerCase()} ${row.type}`, row.planned.data.map((one) => one.toLowerCase())]] : [])),
    );
    const { fit } = fittingWays({
      hasDns: front.givesServers !== 'none',
      isSameDns: false,
      hasWeb: front.newWeb !== undefined,
      isFirstUse: false,
      isNames: false,
    });

    // What the mail wants, from how it was made.
    const wanted = new Map<string, string[]>();
    for (const { owner, type, data } of mail.truth) {
      const key = `${name(owner)} ${type}`;
      wanted.set(key, [...(wanted.get(key) ?? []), data.toLowerCase()]);
    }
    for (const address of mail.addresses) wanted.set(`${name('@')} A`, [address]);
    const lacks: string[] = [];
    for (const [key, data] of wanted) if (!data.every((one) => plan.get(key)?.includes(one))) lacks.push(key);
    if (mail.servers.length > 0 && (fit[0] !== 'nameservers' || front.places.nameservers.length !== mail.servers.length)) lacks.push('nameservers');
    // Whatever leads somewhere else than before, and is not wanted, is wrong.
    const addresses = new Set([...mail.addresses, ...mail.truth.map(({ data }) => data.toLowerCase())]);
    const isOdd = (one: string): boolean => !addresses.has(one) && !OLD.includes(one) && one !== '192.0.2.77' && one !== '10 mx1.post.example.';
    const odd = [...plan].flatMap(([key, data]) => data.filter(isOdd).map((one) => `${key} ${one}`));
    odd.push(...front.places.nameservers.filter((one) => !mail.servers.includes(one.slice(0, -1))));
    const asked = front.items.some(({ question, use }) => question !== undefined && use !== 'none');
    if (lacks.length === 0 && odd.length === 0) right += 1;
    else if (odd.length > 0 || !asked) wrong.push(`seed ${seed} lacks ${lacks.join(', ')}; odd ${odd.join(', ')}\n${mail.text}`);
  }
  expect(wrong).toEqual([]);
  expect(right).toBeGreaterThanOrEqual(MAILS * 0.95);
});
