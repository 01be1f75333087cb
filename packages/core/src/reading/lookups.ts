import { RawRecord } from './find';
import { Line } from './lines';
import { FormRead } from './formRead';
import { typeWord } from './typeWord';

const SAID: readonly (readonly [RegExp, string])[] = [
  [/^(\S+) has address (\S+)$/i, 'A'],
  [/^(\S+) has IPv6 address (\S+)$/i, 'AAAA'],
  [/^(\S+) is an alias for (\S+)$/i, 'CNAME'],
  [/^(\S+)\s+canonical name = (\S+)$/i, 'CNAME'],
  [/^(\S+) mail is handled by (\d+ \S+)$/i, 'MX'],
  [/^(\S+)\s+mail exchanger = (\d+ \S+)$/i, 'MX'],
  [/^(\S+)\s+MX preference = (\d+), mail exchanger = (\S+)$/i, 'MX'],
  [/^(\S+) name server (\S+)$/i, 'NS'],
  [/^(\S+)\s+nameserver = (\S+)$/i, 'NS'],
  [/^(\S+) descriptive text (".*")$/i, 'TXT'],
  [/^(\S+)\s+text = (".*")$/i, 'TXT'],
  [/^(\S+) has SRV record (\d+ \d+ \d+ \S+)$/i, 'SRV'],
  [/^(\S+) has CAA record (\d+ \S+ .+)$/i, 'CAA'],
];

/** Lines in which programs that query say what they got, and the lines they put around it. */
export function readLookups(lines: readonly Line[]): FormRead {
  const records: RawRecord[] = [];
  const read = new Set<number>();
  let asked: { readonly owner: string; readonly type: string } | undefined;
  let named: string | undefined;
  /** The next address is the one of the server that was asked. */
  let isServer = false;
  for (const { line, text: raw } of lines) {
    const text = raw.trim();
    if (
      /^(?:Server|Address):\s+\S+#\d+$|^Server:\s|^Non-authoritative answer:|^>?\s*set (?:type|q|querytype|debug|server)\b|^(?:\S*[$#%]\s+|>\s*)?(?:nslookup|exit)$|^Authoritative answers can be found from:|^;;/i.test(
        text,
      )
    ) {
      read.add(line);
      if (/^Server:/i.test(text)) [named, isServer] = [undefined, true];
      continue;
    }
    if (isServer && /^Address:\s/i.test(text)) {
      isServer = false;
      read.add(line);
      continue;
    }
    const command = askedIn(text);
    if (command) {
      [asked, named] = [command, undefined];
      read.add(line);
      continue;
    }
    const name = /^Name:\s+(\S+)$/i.exec(text)?.[1];
    if (name !== undefined) {
      named = name;
      read.add(line);
      continue;
    }
    const address = named === undefined ? undefined : /^Address(?:es)?:\s+(\S+)$/i.exec(text)?.[1];
    if (address !== undefined) {
      records.push(rawOf(named!, address.includes(':') ? 'AAAA' : 'A', address, line));
      read.add(line);
      continue;
    }
    const found = SAID.flatMap(([pattern, type]) => {
      const match = pattern.exec(text);
      return match ? [rawOf(match[1]!, type, match.slice(2).join(' '), line)] : [];
    })[0];
    if (found) {
      records.push(found);
      read.add(line);
      continue;
    }
    // Short answers say their value alone; what was asked says the rest.
    if (asked && text !== '' && !/^[;$#>%]/.test(text) && (asked.type !== 'TXT' || /^".*"$/.test(text))) {
      records.push({ ...rawOf(asked.owner, asked.type, text, line) });
      read.add(line);
    } else if (text !== '') asked = undefined;
  }
  return { records, read };
}

function rawOf(owner: string, type: string, value: string, line: number): RawRecord {
  // Names that programs print are whole.
  return { owner: owner.endsWith('.') ? owner : `${owner}.`, type, value, line, lastLine: line, form: 'query', doubts: [] };
}

/** The name and type of a query at a prompt, where its answers come short. */
function askedIn(text: string): { owner: string; type: string } | undefined {
  const words = /^(?:\S*[$#>%]\s+)(?:dig|kdig|drill|host|nslookup|delv)\s+(.+)$/i.exec(text)?.[1]?.split(/\s+/);
  if (!words || !words.includes('+short')) return undefined;
  const rest = words.filter((word) => !/^[+@-]/.test(word));
  const type = rest.map((word) => typeWord(word)).find((word) => word !== undefined);
  const owner = rest.find((word) => typeWord(word) === undefined && word.includes('.'));
  return owner === undefined ? undefined : { owner, type: type ?? 'A' };
}
