import { spawn, spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { Lab } from '@wanderon/lab';
import { ROOT } from '../../../command/src/processes';

const CORPUS = join(ROOT, 'e2e/corpus/types.zone');
const BASE = '$TTL 60\n@ SOA ns1 h 1 2 3 4 5\n@ NS ns1\nns1 A 192.0.2.1\n';

interface Ran {
  readonly code: number | null;
  readonly out: string;
  readonly err: string;
}

function tool(args: readonly string[], input?: string): Promise<Ran> {
  return new Promise((resolve) => {
    const child = spawn(process.execPath, [join(ROOT, 'command/dist/main.js'), 'zone', ...args]);
    let out = '';
    let err = '';
    child.stdout.on('data', (chunk) => (out += String(chunk)));
    child.stderr.on('data', (chunk) => (err += String(chunk)));
    child.once('close', (code) => resolve({ code, out, err }));
    child.stdin.end(input ?? '');
  });
}

describe('the zone tools', () => {
  const folder = mkdtempSync(join(tmpdir(), 'wanderon-zone-'));
  afterAll(() => rmSync(folder, { recursive: true, force: true }));
  const file = (name: string, text: string): string => {
    writeFileSync(join(folder, name), text);
    return join(folder, name);
  };

  it.each([
    ['types.zone', 80],
    ['directives.zone', 20],
  ])('print %s as a real server does', async (name, least) => {
    const theirs = join(folder, 'theirs');
    const corpus = join(ROOT, 'e2e/corpus', name);
    // It reads included files relative to where it stands; we, relative to the zone file.
    const options = ['-i', 'local', '-k', 'warn', '-n', 'warn', '-m', 'warn', '-s', 'full', '-o', theirs, 'zone.example', corpus];
    const compiled = spawnSync('named-compilezone', options, { encoding: 'utf8', cwd: join(ROOT, 'e2e/corpus') });
    expect([compiled.status, compiled.stdout]).toEqual([0, expect.stringContaining('OK')]);
    // Long hexadecimal and base64 are broken by a space there; white space between words is no matter.
    const plain = (text: string): string[] =>
      text
        .split('\n')
        .filter((line) => line !== '' && !line.startsWith(';'))
        .map((line) => line.replace(/\s+/g, ''))
        .sort();
    const ours = await tool(['print', corpus, '--origin', 'zone.example']);
    expect(ours.err).toBe('');
    expect(plain(ours.out)).toEqual(plain(readFileSync(theirs, 'utf8')));
    expect(plain(ours.out).length).toBeGreaterThan(least);
  });

  it('read what people have, whatever its form, and say what is sure, asked about, left out and not read', async () => {
    const mail = file(
      'mail.txt',
      'Hello,\n\nName\tType\tValue\nwww\tCNAME\tsites.hearth.example\nmail\tMX\tmx1.post.example\nshop\tA\t192.0.2.300\n\nExample:\n\nblog\tA\t192.0.2.9\n',
    );
    const plain = await tool(['read', mail, '--zone', 'kelp.example']);
    expect(plain.out.trim().split('\n')).toEqual([
      '4: sure www - CNAME sites.hearth.example.',
      '5: ask  mail - MX 10 mx1.post.example.  ; No priority stands there: 10 is taken.',
      '6: sure name shop',
      '10: out  blog - A 192.0.2.9  ; It stands under an example.',
      '1: not read: Hello,',
      '6: not read: shop\tA\t192.0.2.300  ; 192.0.2.300 is not an IPv4 address',
      '8: not read: Example:',
    ]);
    expect(plain.code).toBe(1);
    const json = await tool(['read', '-', '--as', 'new', '--json'], 'Nameserver 1: ns1.hearth.example\nNameserver 2: ns2.hearth.example\n');
    const { finds, unread } = JSON.parse(json.out) as { finds: { kind: string; data: string; trust: string }[]; unread: unknown[] };
    expect(finds.map(({ kind, data, trust }) => [kind, data, trust])).toEqual([
      ['nameserver', 'ns1.hearth.example.', 'sure'],
      ['nameserver', 'ns2.hearth.example.', 'sure'],
    ]);
    expect([json.code, unread]).toEqual([0, []]);
    for (const [args, says] of [
      [['read', mail], 'give --zone NAME'],
      [['read', mail, '--zone', 'kelp.example', '--as', 'both'], '--as takes old or new'],
      [['read'], 'Usage: ./wanderon zone read'],
    ] as const) {
      const { code, err } = await tool(args);
      expect([code, err]).toEqual([2, expect.stringContaining(says)]);
    }
  });

  it('include nothing from outside the folder of the zone file, and end where files include each other', async () => {
    file('loop.inc', '$INCLUDE loop.inc\n');
    symlinkSync('/etc/passwd', join(folder, 'link.inc'));
    const path = file('includes.zone', `${BASE}$INCLUDE ../outside\n$INCLUDE /etc/passwd\n$INCLUDE link.inc\n$INCLUDE absent.inc\n$INCLUDE loop.inc\n`);
    const { code, out } = await tool(['check', path, '--origin', 'zone.example']);
    expect(code).toBe(1);
    expect(out).not.toContain('root:');
    expect(
      out
        .replaceAll(folder, '')
        .split('\n')
        .filter(Boolean)
        .map((line) => line.replace(/^.*syntax: /, '')),
    ).toEqual(
      expect.arrayContaining([
        '/etc/passwd is not below the folder of the zone file',
        'link.inc is not below the folder of the zone file',
        'absent.inc cannot be read: ENOENT',
        'files include each other more than 10 deep',
      ]),
    );
    const piped = await tool(['check', '-', '--origin', 'zone.example'], `${BASE}$INCLUDE good.zone\n`);
    expect([piped.code, piped.out]).toEqual([1, '-:5:1: error: syntax: $INCLUDE is not read here\n']);
  });

  it('print generically what reads back to the same zone', async () => {
    const generic = await tool(['print', CORPUS, '--origin', 'zone.example', '--generic']);
    expect(generic.out).toMatch(/^zone\.example\. 3600 CLASS1 TYPE2 \\# 18 /m);
    const back = await tool(['print', '-', '--origin', 'zone.example'], generic.out);
    expect(back.err).toBe('');
    expect(back.out).toBe((await tool(['print', CORPUS, '--origin', 'zone.example'])).out);
  });

  it.each([
    'a CNAME b\na A 192.0.2.1',
    'a A 192.0.2.1\na CNAME b',
    'a CNAME b\na CNAME c',
    '@ SOA ns1 h 2 2 3 4 5',
    '@ NS ns2',
    '@ NS ns3\nns3 CNAME ns1',
    'a 60 A 192.0.2.1\na 30 A 192.0.2.2',
    'a.other.example. A 192.0.2.1',
    'a MX 1 nowhere',
    'a MX 1 c\nc CNAME ns1',
    'a SRV 1 1 1 nowhere',
    'a SRV 1 1 1 c\nc CNAME ns1',
    'sub NS ns.other.example.\nx.sub TXT hidden',
    'd DNAME other.example.\nx.d A 192.0.2.1',
    'sub NS ns.sub',
    'a A 192.0.2.1\na A 192.0.2.1',
    '*.x NS ns1',
    'sub NS nowhere',
    'd DNAME a.\nd DNAME b.',
    'a FOO x',
    'x SOA ns1 h 1 2 3 4 5',
    'a CH TXT x',
    'x NSEC3PARAM 1 0 1 -',
    'a A 192.0.2',
    'a MX mail',
    'a (\nA 192.0.2.1',
    'a TXT "open',
    '@ NS ns.else.example.',
    '@ NS a.b.c\n*.c A 192.0.2.1',
    'a..b A 192.0.2.1',
    `${'x'.repeat(64)} A 192.0.2.1`,
    'a CAA 0 is-sue "x"',
    'a HTTPS 1 . mandatory=port',
    'a SVCB 1 . port=70000',
    'a LOC 91 N 0 E 0m',
    '',
  ])('load what a real server loads: %j', async (text) => {
    const path = file('case.zone', `${BASE}${text}\n`);
    const theirs = spawnSync('named-checkzone', ['-i', 'local', 'zone.example', path]);
    const ours = await tool(['check', path, '--origin', 'zone.example']);
    expect([ours.code, ours.out]).toEqual([theirs.status, expect.any(String)]);
    if (ours.code === 1) expect(ours.out).toMatch(/:\d+:\d+: error: [a-z-]+: /);
  });

  it('name every finding with its place, as lines or as JSON', async () => {
    const path = file('two.zone', `${BASE}a A 192.0.2\nb MX 1 nowhere\n`);
    const lines = await tool(['check', path, '--origin', 'zone.example']);
    expect(lines.out).toBe(
      `${path}:5:5: error: syntax: 192.0.2 is not an IPv4 address\n${path}:6:1: warning: target-without-address: the MX target nowhere.zone.example. has no address\n`,
    );
    const good = file('good.zone', BASE);
    const json = await tool(['check', path, good, '--json', '--origin', 'zone.example']);
    expect([
      json.code,
      ...json.out
        .trim()
        .split('\n')
        .map((line) => JSON.parse(line) as unknown),
    ]).toEqual([
      1,
      {
        file: path,
        loads: false,
        findings: [
          { line: 5, column: 5, severity: 'error', code: 'syntax', text: '192.0.2 is not an IPv4 address' },
          { line: 6, column: 1, severity: 'warning', code: 'target-without-address', text: 'the MX target nowhere.zone.example. has no address' },
        ],
      },
      { file: good, loads: true, findings: [] },
    ]);
  });

  it('say how they are used, and what is wrong', async () => {
    expect(await tool([])).toMatchObject({ code: 0, out: expect.stringContaining('./wanderon zone check') as string });
    expect(await tool(['check', '-'])).toMatchObject({ code: 2, err: 'standard input needs --origin NAME\n' });
    expect(await tool(['check', join(folder, 'absent.zone')])).toMatchObject({ code: 2, err: expect.stringContaining('ENOENT') as string });
    expect(await tool(['check', CORPUS, '--nonsense'])).toMatchObject({ code: 2 });
    expect(await tool(['ask', 'a.example', 'A', '--server', '127.0.0.1', '--port', '1'])).toMatchObject({ code: 1 });
  });

  it('plan proposes and checks without a database, and says in its exit code whether something stops it', async () => {
    const zone = `${BASE}@ A 192.0.2.80\nwww CNAME sites.old.test.\n@ MX 10 mail\nmail A 192.0.2.25\nfiles A 192.0.2.80\n@ TXT "v=spf1 mx -all"\n`;
    const hosts = {
      oldWeb: [{ name: 'Old Web', addresses: ['192.0.2.80'], aliasTarget: 'sites.old.test' }],
      newDns: { name: 'New DNS', nameservers: ['ns1.new.test'] },
      newWeb: { name: 'New Web', addresses: ['203.0.113.80'], aliasTarget: 'sites.new.test', requires: [{ owner: '_proof', type: 'TXT', data: '"{zone}"' }] },
    };
    const given = [file('cove.example.zone', zone), '--hosts', file('hosts.json', JSON.stringify(hosts))];
    const text = await tool(['plan', ...given]);
    expect(text).toMatchObject({ code: 0, err: '' });
    expect(text.out.split('\n')).toEqual(
      expect.arrayContaining([
        expect.stringMatching(/^repoint cove\.example\. A 192\.0\.2\.80 -> 203\.0\.113\.80 ; /) as string,
        expect.stringMatching(/^repoint www\.cove\.example\. CNAME sites\.old\.test\. -> sites\.new\.test\. ; /) as string,
        expect.stringMatching(/^carry mail\.cove\.example\. A 192\.0\.2\.25 ; /) as string,
        expect.stringMatching(/^new _proof\.cove\.example\. TXT "cove\.example" ; /) as string,
      ]),
    );
    // The planned zone is one that loads; the plan of it has nothing more to lead elsewhere.
    const planned = await tool(['plan', ...given, '--zone']);
    const whole = file('planned.zone', `$TTL 60\n@ SOA ns1.new.test. h.new.test. 1 2 3 4 5\n@ NS ns1.new.test.\n${planned.out}`);
    expect(await tool(['check', whole, '--origin', 'cove.example'])).toMatchObject({ code: 0 });
    const again = JSON.parse((await tool(['plan', whole, '--origin', 'cove.example', '--json', ...given.slice(1)])).out) as { rulings: { ruling: string }[] };
    expect(new Set(again.rulings.map((one) => one.ruling))).toEqual(new Set(['carry', 'drop']));
    // What stops it: the new host has nothing that www could lead to.
    const bare = file('bare.json', JSON.stringify({ ...hosts, newWeb: { name: 'New Web', addresses: ['2001:db8::1'] } }));
    const stopped = await tool(['plan', given[0]!, '--hosts', bare, '--json']);
    expect(stopped.code).toBe(1);
    expect(
      (JSON.parse(stopped.out) as { remarks: { code: string; weight: string }[] }).remarks.filter((one) => one.weight === 'stop').map((one) => one.code),
    ).toContain('leads-nowhere');
  });

  it('plan by all that is said of the hosts: who makes certificates, aliases at the apex, the least TTL', async () => {
    const zone = file(
      'bay.example.zone',
      '$TTL 300\n@ SOA ns1.old.test. h 1 2 3 4 5\n@ NS ns1.old.test.\n@ A 192.0.2.80\n@ CAA 0 issue "certs.test"\nshop A 192.0.2.9\n',
    );
    const said = async (newDns: object, newWeb: object): Promise<string[]> => {
      const hosts = file(
        'bay.json',
        JSON.stringify({ oldWeb: [{ name: 'Old', addresses: ['192.0.2.80'] }], newDns: { name: 'New', ...newDns }, newWeb: { name: 'Web', ...newWeb } }),
      );
      const { out } = await tool(['plan', zone, '--origin', 'bay.example', '--hosts', hosts, '--json']);
      return (JSON.parse(out) as { remarks: { code: string }[] }).remarks.map(({ code }) => code);
    };
    const web = { addresses: ['203.0.113.80'] };
    expect(await said({}, web)).toEqual(['caa-unknown']);
    expect(await said({}, { ...web, issuers: ['certs.test'] })).toEqual([]);
    expect(await said({}, { ...web, issuers: ['others.test'] })).toEqual(['caa-forbids']);
    expect(await said({ leastTtl: 600 }, { ...web, issuers: ['certs.test'] })).toContain('ttl-under-least');
    expect(await said({}, { aliasTarget: 'sites.web.test', issuers: ['certs.test'] })).not.toEqual(
      await said({ apexAlias: true }, { aliasTarget: 'sites.web.test', issuers: ['certs.test'] }),
    );
  });

  it('plan says what is wrong in its files, with the place', async () => {
    const zone = file('cove.example.zone', BASE);
    expect(await tool(['plan', zone])).toMatchObject({ code: 2, err: 'plan needs --hosts FILE.json\n' });
    const hosts = (value: string): Promise<Ran> => tool(['plan', zone, '--hosts', file('wrong.json', value)]);
    expect(await hosts('{')).toMatchObject({ code: 2, err: expect.stringContaining('is not JSON') as string });
    expect(await hosts('{"newDns": {"name": "N", "nameservers": ["a..b"]}}')).toMatchObject({
      code: 2,
      err: expect.stringContaining('newDns.nameservers.0: a..b is not a name') as string,
    });
    expect(await hosts('{"newDns": {"name": "N"}, "newWeb": {"name": "W", "addresses": ["192.0.2.300"]}}')).toMatchObject({
      ...{ code: 2, err: expect.stringContaining('newWeb.addresses.0: is not an IPv4 or IPv6 address') as string },
    });
    expect(await hosts('{"newDns": {"name": "N"}, "more": 1}')).toMatchObject({ code: 2, err: expect.stringContaining('more') as string });
    const broken = file('broken.zone', `${BASE}@ A 192.0.2.300\n`);
    expect(await tool(['plan', broken, '--origin', 'cove.example', '--hosts', file('ok.json', '{"newDns": {"name": "N"}}')])).toMatchObject({
      ...{ code: 1, out: '', err: expect.stringMatching(/broken\.zone:5:\d+: error: /) as string },
    });
  });

  it('fetch, compare and push against a server', async () => {
    const lab = await Lab.open({ rate: 0 });
    try {
      const key = lab.hosts[0]!.key!;
      const keyFile = file('key.json', JSON.stringify(key));
      const port = String(lab.routes.list().find((route) => route.address === '198.51.100.11' && route.transport === 'tcp')!.toPort);
      const at = ['--server', '127.0.0.1', '--port', port, '--key', keyFile];
      expect(await tool(['fetch', 'gull-radio.example', '--server', '127.0.0.1', '--port', port])).toMatchObject({
        code: 1,
        err: expect.stringContaining('REFUSED') as string,
      });
      const fetched = await tool(['fetch', 'gull-radio.example', ...at]);
      expect(fetched.code).toBe(0);
      const before = file('gull-radio.example.zone', fetched.out);
      const after = file('after.zone', fetched.out.replace('192.0.2.90', '192.0.2.91').replace(/^mail\.gull.*\n/m, ''));
      const difference =
        '- mail.gull-radio.example. 10800 A 198.51.100.25\n- stream.gull-radio.example. 10800 A 192.0.2.90\n+ stream.gull-radio.example. 10800 A 192.0.2.91\n';
      expect(await tool(['compare', before, before, '--origin', 'gull-radio.example'])).toMatchObject({ code: 0, out: '' });
      expect(await tool(['compare', before, after, '--origin', 'gull-radio.example'])).toMatchObject({ code: 1, out: difference });
      expect(await tool(['push', after, '--origin', 'gull-radio.example', '--dry-run', ...at])).toMatchObject({ code: 0, out: difference });
      expect((await tool(['fetch', 'gull-radio.example', ...at])).out).toBe(fetched.out);
      expect(await tool(['push', after, '--origin', 'gull-radio.example', ...at])).toMatchObject({ code: 0, out: difference });
      expect(await tool(['push', after, '--origin', 'gull-radio.example', ...at])).toMatchObject({ code: 0, out: '' });
    } finally {
      lab.close();
    }
  });
});
