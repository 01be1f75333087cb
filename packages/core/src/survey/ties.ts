import { Name } from '../dns/name';
import { namesIn, printRdata } from '../dns/rdata';
import { RRset } from '../dns/record';
import { TYPE_CODES, typeMnemonic } from '../dns/typeNames';
import { End, Follower } from './ends';
import { namesInText } from './namesInText';
import { plain } from './words';

/** Something that a move of this domain moves along, or breaks, elsewhere. */
export interface Tie {
  readonly code: 'other domain' | 'policy host' | 'certificate' | 'local mail';
  /** The name in this zone, absolute. */
  readonly owner: Name;
  readonly text: string;
}

/** Another domain of the agency as it was surveyed last. Without final dot. */
export interface OtherDomain {
  readonly domain: string;
  /** Names that the parent delegates to, and the registry holds for it; absolute. */
  readonly nameservers: readonly Name[];
  readonly sets: readonly RRset[];
}

/**
 * What hangs together with a zone outside of its records: other domains that name something here, a mail policy that is
 * a page of the website (RFC 8461 §3.3), keys bound to a certificate (RFC 6698), mail that shares the web server.
 */
export function tiesOf(zone: Name, sets: readonly RRset[], ends: readonly End[], others: readonly OtherDomain[]): Tie[] {
  return [...fromOthers(zone, others), ...policyHost(zone, sets), ...boundKeys(sets), ...localMail(zone, sets, ends)];
}

function fromOthers(zone: Name, others: readonly OtherDomain[]): Tie[] {
  return others.flatMap(({ domain, sets, nameservers }) => [
    ...nameservers
      .filter((name) => name.isAtOrBelow(zone))
      .map((name): Tie => ({
        code: 'other domain',
        owner: name,
        text: `${domain} is delegated to ${plain(name.toString())}: its registry holds that name, and maybe its address. It stops resolving where that server goes.`,
      })),
    ...sets.flatMap((set) =>
      set.data.flatMap((data) =>
        [...namesIn(set.type, data), ...namesInText(set.type, data)]
          .filter((name) => name.isAtOrBelow(zone))
          .map((name): Tie => ({
            code: 'other domain',
            owner: name,
            text: `${domain} leads here: ${plain(set.owner.toString())} ${typeMnemonic(set.type)} names ${plain(name.toString())}. What changes here changes there.`,
          })),
      ),
    ),
  ]);
}

function policyHost(zone: Name, sets: readonly RRset[]): Tie[] {
  const host = zone.child('mta-sts');
  const there = sets.find((set) => set.owner.equals(host) && [TYPE_CODES.A, TYPE_CODES.AAAA, TYPE_CODES.CNAME].some((type) => type === set.type));
  const announced = sets.some((set) => set.type === TYPE_CODES.TXT && set.owner.equals(zone.child('_mta-sts')));
  if (!there || !announced) return [];
  return [
    {
      code: 'policy host',
      owner: host,
      text: `${plain(host.toString())} serves the mail policy as a web page with a certificate of its own: where it moves with the website, senders that cannot read it may hold mail back.`,
    },
  ];
}

function boundKeys(sets: readonly RRset[]): Tie[] {
  return sets
    .filter((set) => set.type === TYPE_CODES.TLSA)
    .map((set): Tie => ({
      code: 'certificate',
      owner: set.owner,
      text: `${plain(set.owner.toString())} TLSA is bound to a certificate or key that stands where the service is now: with another one the service is refused until this record is changed.`,
    }));
}

/** A mail service on the server of the website takes mail for the domain as its own, and goes on doing so when mail is elsewhere. */
function localMail(zone: Name, sets: readonly RRset[], ends: readonly End[]): Tie[] {
  const web = new Set(
    sets
      .filter((set) => (set.owner.equals(zone) || set.owner.equals(zone.child('www'))) && (set.type === TYPE_CODES.A || set.type === TYPE_CODES.AAAA))
      .flatMap((set) => set.data.map((data) => printRdata(set.type, data))),
  );
  const follower = new Follower(sets, ends);
  return sets
    .filter((set) => set.type === TYPE_CODES.MX && set.owner.equals(zone))
    .flatMap((set) => follower.endsOf(set))
    .filter(({ addresses }) => addresses.some((address) => web.has(address)))
    .map(({ target, addresses }): Tie => ({
      code: 'local mail',
      owner: zone,
      text: `Mail goes to ${plain(target.toString())}, which is the server of the website (${addresses.find((address) => web.has(address))!}): it stays there unless it is moved on purpose, and once it is elsewhere the old server still delivers its own mail to the old boxes.`,
    }));
}
