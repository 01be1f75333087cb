import { readFileSync, writeSync } from 'node:fs';
import { parseArgs } from 'node:util';
import {
  ByteWriter,
  Name,
  NameError,
  RRset,
  ResourceRecord,
  TSIG_ALGORITHMS,
  TYPE_CODES,
  TsigAlgorithm,
  TsigKey,
  WireError,
  changesBetween,
  extendedErrors,
  fromBase64,
  groupRecords,
  isIpv4,
  isIpv6,
  printRdata,
  printRecord,
  printZoneFile,
  rcodeName,
  recordsOf,
  typeCode,
  typeMnemonic,
  writeGeneric,
} from '@wanderon/core';
import { DnsClient, NetError, Over, ServerAddress, sendUpdates, transferZone } from '@wanderon/net';
import { PIECE, UsageError, checked, loaded, parseName } from './zoneFiles';

/** How each tool is called, what it does, and an example. */
const TOOLS: Readonly<Record<string, { readonly usage: string; readonly does: string; readonly example: string }>> = {
  check: {
    usage: 'check FILE... [--origin NAME] [--json]',
    does: 'Would a server load it? Findings as file:line:column: severity: code: text, or one JSON object a file.\nExit 0 if all of them load, 1 if not.',
    example: 'check lighthouse.example.zone',
  },
  print: {
    usage: 'print FILE [--origin NAME] [--generic]',
    does: 'One record a line with absolute names, in canonical order; --generic as RFC 3597 has it.',
    example: 'print --origin lighthouse.example - < zonefile',
  },
  compare: {
    usage: 'compare A B [--origin NAME]',
    does: 'What differs: - for what A has, + for what B has. Exit 0 if nothing does, 1 if something.',
    example: 'compare before.zone after.zone --origin lighthouse.example',
  },
  plan: {
    usage: 'plan FILE --hosts FILE.json [--origin NAME] [--json | --zone]',
    does: 'What would become of each record set at the new hosts, and what is to be said of that plan, as the ledger has it.\n--json one object; --zone the planned zone as a file. Exit 0 if nothing stops it, 1 if something does or the file does not load.',
    example: 'plan lighthouse.example.zone --hosts hosts.json',
  },
  read: {
    usage: 'read FILE... [--zone NAME] [--as old|new] [--json]',
    does: 'What a text gives, whatever its form: an export, the table of a panel, a mail, a page, answers of a query.\nEach find with its line and whether it is sure, asked about or left out, and each line that was not read.\n--as new: what a new host wants. Exit 0 if all that was found is sure, 1 if not.',
    example: 'read panel.txt --zone lighthouse.example',
  },
  fetch: {
    usage: 'fetch NAME --server ADDRESS [--port N] [--key FILE.json] [--over tcp|tls]',
    does: 'Transfers a zone and prints it.',
    example: 'fetch lighthouse.example --server 192.0.2.53 --key key.json',
  },
  push: {
    usage: 'push FILE --server ADDRESS --key FILE.json [--origin NAME] [--port N] [--dry-run]',
    does: "Brings the server's zone to the file by the smallest update, guarded by what was seen, and reads it back.\nThe SOA stays the server's own. --dry-run only shows the changes.",
    example: 'push lighthouse.example.zone --server 192.0.2.53 --key key.json --dry-run',
  },
  ask: {
    usage: 'ask NAME TYPE --server ADDRESS [--port N] [--over udp|tcp|tls|https] [--recursive]',
    does: 'Asks one server one question. Exit 0 where it answers NOERROR, 1 where not.',
    example: 'ask www.lighthouse.example A --server 192.0.2.53',
  },
};

const NOTES = `FILE may be - for standard input. Without --origin, the zone's name is the file's, without its .zone or .db.
A key file holds {"name": "...", "algorithm": "hmac-sha256", "secret": "base64"}.
A hosts file holds {"oldWeb": [{"name", "addresses", "aliasTarget"}], "newDns": {"name", "nameservers", "lacks", "most", "apexAlias"},
"newWeb": {"name", "addresses", "aliasTarget", "requires": [{"owner", "type", "data"}], "issuers"}}; what a plan does without may be left out.`;

function help(names: readonly string[]): string {
  const parts = names.map((name) => {
    const { usage, does, example } = TOOLS[name]!;
    return `  ${usage}\n      ${does.replaceAll('\n', '\n      ')}\n      ./wanderon zone ${example}\n`;
  });
  return `Usage: ./wanderon zone TOOL ...\n\n${parts.join('')}\n${NOTES}`;
}

/** The zone tools; they need no database. Gives the exit code. */
export async function zone(args: readonly string[]): Promise<number> {
  const [tool, ...rest] = args;
  if (tool !== undefined && Object.hasOwn(TOOLS, tool) && rest.some((word) => word === '--help' || word === '-h')) {
    console.log(help([tool]));
    return 0;
  }
  try {
    switch (tool) {
      case 'check':
        return check(rest);
      case 'print':
        return print(rest);
      case 'compare':
        return compare(rest);
      case 'plan':
        // Loaded where it is asked for: it knows the forms of hosts, which a look at a zone file need not wait for.
        return (await import('./zonePlan')).plan(options('plan', rest, 1));
      case 'read': {
        const { values, positionals } = parseArgs({ args: [...rest], options: READ_OPTIONS, allowPositionals: true });
        if (positionals.length === 0) throw new UsageError(`Usage: ./wanderon zone ${TOOLS.read!.usage}`);
        return (await import('./zoneRead')).read(positionals, values);
      }
      case 'fetch':
        return await fetchZone(rest);
      case 'push':
        return await push(rest);
      case 'ask':
        return await ask(rest);
      default:
        console.log(help(Object.keys(TOOLS)));
        return tool === undefined || ['--help', '-h', 'help'].includes(tool) ? 0 : 2;
    }
  } catch (error) {
    if (error instanceof NetError) {
      console.error(error.message);
      return 1;
    }
    if (error instanceof UsageError || (error instanceof TypeError && 'code' in error) || (error as NodeJS.ErrnoException).code === 'ENOENT') {
      console.error((error as Error).message);
      return 2;
    }
    throw error;
  }
}

const READ_OPTIONS = { zone: { type: 'string' }, as: { type: 'string' }, json: { type: 'boolean' } } as const;

const OPTIONS = {
  origin: { type: 'string' },
  json: { type: 'boolean' },
  hosts: { type: 'string' },
  zone: { type: 'boolean' },
  generic: { type: 'boolean' },
  server: { type: 'string' },
  port: { type: 'string' },
  key: { type: 'string' },
  recursive: { type: 'boolean' },
  over: { type: 'string' },
  'dry-run': { type: 'boolean' },
} as const;

function options(tool: string, args: readonly string[], least: number) {
  const { values, positionals } = parseArgs({ args: [...args], options: OPTIONS, allowPositionals: true });
  if (positionals.length < least) throw new UsageError(help([tool]));
  return { ...values, files: positionals };
}

function check(args: readonly string[]): number {
  const { files, origin, json } = options('check', args, 1);
  let all = true;
  for (const file of files) {
    const { loads, findings } = checked(file, origin);
    all &&= loads;
    if (json) console.log(JSON.stringify({ file, loads, findings }));
    else
      for (const finding of findings)
        console.log(`${finding.file ?? file}:${finding.line}:${finding.column}: ${finding.severity}: ${finding.code}: ${finding.text}`);
  }
  return all ? 0 : 1;
}

function print(args: readonly string[]): number {
  const { files, origin, generic } = options('print', args, 1);
  const { loads, findings, records } = checked(files[0]!, origin, { errorsOnly: true });
  for (const finding of findings.filter((one) => one.severity === 'error'))
    console.error(`${finding.file ?? files[0]}:${finding.line}:${finding.column}: error: ${finding.code}: ${finding.text}`);
  if (!loads) return 1;
  writeRecords(records, generic ? printGeneric : printRecord);
  return 0;
}

function compare(args: readonly string[]): number {
  const { files, origin } = options('compare', args, 2);
  const [left, right] = files.slice(0, 2).map((file) => groupRecords(loaded(file, origin).records)) as [RRset[], RRset[]];
  const changes = changesBetween(left, right);
  for (const change of changes) process.stdout.write(changeLines(change.before, change.after));
  return changes.length === 0 ? 0 : 1;
}

async function fetchZone(args: readonly string[]): Promise<number> {
  const { files, ...rest } = options('fetch', args, 1);
  const zoneName = parseName(files[0]!);
  const { records } = await transferZone(new DnsClient(), server(rest), zoneName, { key: keyFrom(rest.key), over: overFrom(rest.over, ['tcp', 'tls']) });
  writeRecords(
    groupRecords(records).flatMap((set) => recordsOf(set)),
    printRecord,
  );
  return 0;
}

async function push(args: readonly string[]): Promise<number> {
  const { files, origin, ...rest } = options('push', args, 1);
  const key = keyFrom(rest.key);
  if (!key) throw new UsageError('push needs --key FILE.json');
  const { records, origin: zoneName } = loaded(files[0]!, origin);
  const client = new DnsClient();
  const own = (set: RRset): boolean => set.owner.equals(zoneName) && set.type === TYPE_CODES.SOA;
  const wanted = groupRecords(records).filter((set) => !own(set));
  const look = async () => changesBetween(groupRecords((await transferZone(client, server(rest), zoneName, { key })).records), wanted, own);
  const changes = await look();
  for (const change of changes) process.stdout.write(changeLines(change.before, change.after));
  if (rest['dry-run'] || changes.length === 0) return 0;
  await sendUpdates(client, server(rest), zoneName, changes, key);
  const left = await look();
  if (left.length > 0) console.error(`The server took the update, but ${left.length} record sets still differ.`);
  return left.length === 0 ? 0 : 1;
}

async function ask(args: readonly string[]): Promise<number> {
  const { files, recursive, ...rest } = options('ask', args, 2);
  const type = typeCode(files[1]!);
  if (type === undefined) throw new UsageError(`${files[1]} is not a record type`);
  const answer = await new DnsClient().ask(server(rest), parseName(files[0]!), type, {
    recursive: recursive ?? false,
    over: overFrom(rest.over, ['udp', 'tcp', 'tls', 'https']),
  });
  console.log(`; ${rcodeName(answer.rcode)}${answer.authoritative ? ', authoritative' : ''}`);
  for (const error of extendedErrors(answer.edns)) console.log(`; ${error.meaning}${error.text === '' ? '' : `: ${JSON.stringify(error.text)}`}`);
  for (const [title, section] of [
    ['answer', answer.answers],
    ['authority', answer.authorities],
    ['additional', answer.additionals],
  ] as const)
    if (section.length > 0) process.stdout.write(`; ${title}\n${printZoneFile(section)}`);
  return answer.rcode === 0 ? 0 : 1;
}

/** Writes records to standard output in large pieces. */
function writeRecords(records: Iterable<ResourceRecord>, print: (record: ResourceRecord, out: ByteWriter) => void): void {
  const out = new ByteWriter(PIECE + 70_000);
  const flush = (): void => {
    const text = out.view();
    for (let at = 0; at < text.length;) at += writePiece(text.subarray(at));
    out.cut(0);
  };
  for (const record of records) {
    print(record, out);
    if (out.length > PIECE) flush();
  }
  flush();
}

function writePiece(piece: Uint8Array): number {
  try {
    return writeSync(1, piece);
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'EAGAIN') throw error;
    Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, 2);
    return 0;
  }
}

function server(rest: { server?: string | undefined; port?: string | undefined }): ServerAddress {
  if (!rest.server) throw new UsageError('--server ADDRESS is missing');
  if (!isIpv4(rest.server) && !isIpv6(rest.server)) throw new UsageError(`--server takes an address, and ${rest.server} is none`);
  if (rest.port === undefined) return { address: rest.server };
  const port = Number(rest.port);
  if (!Number.isInteger(port) || port < 1 || port > 65_535) throw new UsageError('--port must be a number up to 65535');
  return { address: rest.server, port };
}

function overFrom(text: string | undefined, allowed: readonly Over[]): Over {
  const over = allowed.find((one) => one === (text ?? allowed[0]));
  if (over === undefined) throw new UsageError(`--over must be one of ${allowed.join(', ')}`);
  return over;
}

function keyFrom(file: string | undefined): TsigKey | undefined {
  if (file === undefined) return undefined;
  let read: { name?: unknown; algorithm?: unknown; secret?: unknown };
  try {
    read = JSON.parse(readFileSync(file, 'utf8')) as typeof read;
  } catch (error) {
    if (error instanceof SyntaxError) throw new UsageError(`${file} is not JSON: ${error.message}`);
    throw error;
  }
  if (typeof read.name !== 'string' || typeof read.secret !== 'string' || !TSIG_ALGORITHMS.includes(read.algorithm as TsigAlgorithm))
    throw new UsageError(`${file} is no key: it needs name, algorithm (${TSIG_ALGORITHMS.join(', ')}) and secret`);
  try {
    return { name: Name.parse(read.name), algorithm: read.algorithm as TsigAlgorithm, secret: fromBase64(read.secret) };
  } catch (error) {
    // The message must not hold the secret.
    if (error instanceof WireError || error instanceof NameError) throw new UsageError(`${file} is no key: ${error.message}`);
    throw error;
  }
}

/** RFC 3597 §5: class and type by number, data as hexadecimal. */
function printGeneric(record: ResourceRecord, out: ByteWriter): void {
  record.owner.print(out);
  out.ascii(` ${record.ttl} CLASS${record.cls} TYPE${record.type} `);
  writeGeneric(record.data, out);
  out.u8(10);
}

function changeLines(before: RRset | undefined, after: RRset | undefined): string {
  const lines = (set: RRset | undefined): string[] =>
    (set ? recordsOf(set) : []).map(
      (record) => `${record.owner.toString()} ${record.ttl} ${typeMnemonic(record.type)} ${printRdata(record.type, record.data)}`,
    );
  const [old, fresh] = [lines(before), lines(after)];
  return [
    ...old.filter((line) => !fresh.includes(line)).map((line) => `- ${line}\n`),
    ...fresh.filter((line) => !old.includes(line)).map((line) => `+ ${line}\n`),
  ].join('');
}
