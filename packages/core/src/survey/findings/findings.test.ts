import { AuthorityAnswer } from '../coverage';
import { Registration } from '../registration';
import { ReferralAnswer, Standing } from './finding';
import { findingsOf } from './index';

const DAY = 86_400;
const NOW = 1_800_000_000;
const OLD = ['ns1.oldquay.example.', 'ns2.oldquay.example.'];

const referral = (more: Partial<ReferralAnswer> = {}): ReferralAnswer => ({
  server: 'a.nic.test.',
  address: '192.0.2.1',
  nameservers: OLD,
  ttl: 3600,
  glue: [],
  ds: [],
  dsTtl: undefined,
  problem: undefined,
  ...more,
});
const authority = (index: number, more: Partial<AuthorityAnswer> = {}): AuthorityAnswer => ({
  server: OLD[index]!,
  address: `198.51.100.${11 + index}`,
  authoritative: true,
  serial: 7,
  transferred: false,
  problem: undefined,
  responded: true,
  tcpProblem: undefined,
  nameservers: OLD,
  signed: false,
  ...more,
});
const registration = (more: Partial<Registration> = {}): Standing['registration'] => ({
  kind: 'found',
  registration: {
    service: 'rdap.nic.test',
    registrar: 'Harbourlight Names',
    registered: undefined,
    expires: NOW + 300 * DAY,
    statuses: ['active'],
    nameservers: OLD.map((name) => name.slice(0, -1).toUpperCase()),
    delegationSigned: false,
    dsKeyTags: [],
    ...more,
  },
});
const standing = (more: Partial<Standing> = {}): Standing => ({
  domain: 'reed-bank.example',
  parent: 'example.',
  referrals: [referral(), referral({ server: 'b.nic.test.', nameservers: [...OLD].reverse() })],
  authorities: [authority(0), authority(1)],
  unresolved: [],
  ofNames: OLD.map((name, index) => ({ name, addresses: [`198.51.100.${11 + index}`] })),
  registration: registration(),
  panels: [],
  below: [],
  takenAt: NOW,
  ...more,
});
const said = (more: Partial<Standing>): string[] => findingsOf(standing(more)).map(({ weight, code }) => `${weight} ${code}`);
const text = (more: Partial<Standing>): string =>
  findingsOf(standing(more))
    .map((finding) => finding.text)
    .join('\n');

describe('findings', () => {
  it('are none where everything is as it should be', () => expect(findingsOf(standing())).toEqual([]));

  it('tell of the parent', () => {
    expect(said({ referrals: [referral({ nameservers: [], ttl: undefined })], registration: undefined })).toContain('stop not-delegated');
    expect(text({ referrals: [referral(), referral({ server: 'b.nic.test.', nameservers: ['ns9.quillmere.example.'] })] })).toMatch(
      /disagree: a\.nic\.test delegates to ns1\.oldquay\.example and ns2\.oldquay\.example, b\.nic\.test to ns9\.quillmere\.example/,
    );
    expect(text({ referrals: [referral({ ttl: 2 * DAY })] })).toMatch(/a TTL of 2 days/);
    expect(said({ referrals: [referral(), referral({ nameservers: [], problem: 'it did not answer' })] })).toEqual(['look parent-silent']);
    expect(said({ unresolved: ['ns2.oldquay.example.'] })).toEqual(['look no-address']);
  });

  it('tell of addresses that the parent kept and the server has left', () => {
    const glue = (address: string): ReferralAnswer[] => [referral({ glue: [{ name: OLD[0]!, address, ttl: 3600 }] })];
    expect(said({ referrals: glue('198.51.100.11') })).toEqual([]);
    expect(said({ referrals: glue('192.0.2.99') })).toEqual(['look glue']);
    // What was asked at the glue says nothing of where the name leads.
    expect(said({ referrals: glue('192.0.2.99'), authorities: [authority(0), authority(0, { address: '192.0.2.99' }), authority(1)] })).toEqual(['look glue']);
    expect(said({ referrals: glue('198.51.100.11'), ofNames: [{ name: OLD[0]!, addresses: [] }] })).toEqual(['look glue-alone']);
    expect(said({ referrals: glue('198.51.100.11'), ofNames: [] })).toEqual([]);
  });

  it('tell of lame, silent and lagging servers, and of those without TCP', () => {
    expect(said({ authorities: [authority(0), authority(1, { authoritative: false, serial: undefined, nameservers: [] })] })).toEqual(['look lame']);
    expect(said({ authorities: [authority(0), authority(1, { authoritative: false, responded: false, serial: undefined, nameservers: [] })] })).toEqual([
      'look silent',
    ]);
    expect(said({ authorities: [authority(0), authority(1, { tcpProblem: 'refused' })] })).toEqual(['look no-tcp']);
    expect(said({ authorities: [authority(0), authority(1, { withoutAuthority: true })] })).toEqual(['look no-authority']);
    expect(text({ authorities: [authority(0), authority(1, { serial: 6 })] })).toMatch(/at 7; ns2\.oldquay\.example \(198\.51\.100\.12\) at 6/);
  });

  it('tell of nameservers left over on either side', () => {
    const third = [...OLD, 'ns3.tarn.example.'];
    expect(said({ authorities: [authority(0, { nameservers: third }), authority(1, { nameservers: third })] })).toEqual(['look leftover-in-zone']);
    expect(said({ referrals: [referral({ nameservers: third })], registration: undefined })).toEqual(['look leftover-at-parent']);
    expect(said({ authorities: [authority(0, { nameservers: third }), authority(1)] })).toEqual(['look ns-differs', 'look leftover-in-zone']);
  });

  it('tell of signing: a DS to be waited for, a zone that is forged to those who check, signatures that nobody can check', () => {
    const ds = [referral({ ds: ['1 13 2 AB'], dsTtl: 3600 })];
    expect(said({ referrals: ds, authorities: [authority(0, { signed: true }), authority(1, { signed: true })] })).toEqual(['look ds']);
    expect(said({ referrals: ds })).toEqual(['stop bogus', 'look ds']);
    expect(said({ authorities: [authority(0, { signed: true })] })).toEqual(['note signed-without-ds']);
    // To resolvers that do not know the algorithm or the digest the zone is unsigned (RFC 4035 §5.2).
    expect(said({ referrals: [referral({ ds: ['1 200 2 AB'], dsTtl: 3600 })] })).toEqual(['look ds', 'look bogus', 'note ds-unknown']);
    expect(text({ referrals: [referral({ ds: ['1 13 99 AB'], dsTtl: 3600 })] })).toMatch(
      /a resolver that knows digest type 99 it is forged, for all others it is unsigned/,
    );
    expect(said({ referrals: [referral({ ds: ['1 200 2 AB', '1 13 2 AB'], dsTtl: 3600 })] })).toContain('stop bogus');
  });

  it('tell of the registration: statuses that forbid the change, an end inside the move, another record than the servers publish', () => {
    expect(said({ registration: registration({ statuses: ['client update prohibited', 'client transfer prohibited'] }) })).toEqual(['look status']);
    expect(said({ registration: registration({ statuses: ['server hold'] }) })).toEqual(['stop status']);
    expect(text({ registration: registration({ expires: NOW + 20 * DAY }) })).toMatch(/ends on 2027-02-04 \(UTC\), maybe inside the move/);
    expect(said({ registration: registration({ expires: NOW - DAY }) })).toEqual(['stop expired']);
    expect(said({ registration: registration({ nameservers: ['ns9.quillmere.example'] }) })).toEqual(['look registry-differs']);
    expect(said({ registration: { kind: 'absent', service: 'rdap.nic.test' } })).toEqual(['look not-registered']);
    expect(said({ registration: { kind: 'unknown', problem: 'x' } })).toEqual(['note registration-unknown']);
  });

  it('say which panel is live', () => {
    const panels = [
      { host: 'Oldquay', live: true, serves: true },
      { host: 'Quillmere', live: false, serves: true },
      { host: 'Tarn', live: false, serves: false },
    ];
    expect(text({ panels })).toBe('Records typed at Oldquay take effect; those at Quillmere do not yet, though the zone stands there.');
    expect(said({ panels: panels.map((panel) => ({ ...panel, live: true })) })).toEqual(['look two-panels', 'note live-panel']);
  });
});
