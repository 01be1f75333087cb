import { isIpv4, isIpv6 } from '../dns/address';
import { cleanLines } from './clean';
import { labelOf } from './labels';
import { isNoise } from './noiseWords';

/** Characters and fields that are read; a registrar takes thirteen names at the most. */
const LONGEST = 8000;
const MOST = 40;

/**
 * The fields of a registrar's form, or what a lookup or a panel shows of them: labels, numbers, headings, buttons, addresses beside names and
 * the front of zone-file lines are left out. What was typed in a field stays as it was typed.
 *
 *     typedServers('Nameserver 1: ns1.quillmere.example (203.0.113.53)')  // ['ns1.quillmere.example']
 *     typedServers('choir.example. 3600 IN NS ns1.quillmere.example.')    // ['ns1.quillmere.example.']
 *     typedServers('ns1,quillmere.example')                              // ['ns1,quillmere.example']
 */
export function typedServers(text: string): string[] {
  const { lines } = cleanLines(text.slice(0, LONGEST));
  return lines.flatMap(({ text: line, cells }) => fieldsOfLine(line, cells ?? line.split(/[\t;|]+/))).slice(0, MOST);
}

const HOST = /^[\p{L}\p{N}_-]+(?:\.[\p{L}\p{N}_-]+)+\.?$/u;
const isAddress = (word: string): boolean => isIpv4(word.replace(/^[[(]+|[\])]+$/g, '')) || isIpv6(word.replace(/^[[(]+|[\])]+$/g, ''));

function fieldsOfLine(text: string, parts: readonly string[]): string[] {
  const line = text.trim();
  if (/^[;#]|^\/\//.test(line)) return [];
  const record = /^\S+\s+(?:\d\w*\s+)?(?:IN\s+)?(?:\d\w*\s+)?NS\s+(\S+)$/i.exec(line) ?? /^\S+\s+(?:nameserver =|name server)\s+(\S+)$/i.exec(line);
  if (record) return [record[1]!];
  const fields = parts.flatMap(fieldsOf);
  // In a row with a name, cells of addresses and numbers say nothing of it.
  return fields.some((field) => HOST.test(field)) ? fields.filter((field) => !(isAddress(field) || isNoise(field) || /^\d+$/.test(field))) : fields;
}

function fieldsOf(part: string): string[] {
  const line = part.trim();
  if (line === '') return [];
  const labelled = /^([^:=]{1,40}?)\s*[:=]\s*(.*)$/.exec(line);
  const label = labelled && !/^[a-z][a-z0-9+.-]*:\/\//i.test(line) ? labelOf(labelled[1]!) : undefined;
  if (label === 'address' || label === 'ipv6' || label === 'ttl' || label === 'noise') return [];
  const isLabelled = label !== undefined || /^\s*(?:name ?server|ns|dns)\s*#?\d{0,2}\s*[:=]\s+/i.test(line);
  if (!isLabelled) return valueIn(withoutLabel(line));
  // Behind a label "ns1" is what was typed, and no label.
  const typed = (labelled?.[2] ?? '').trim();
  return /^[\p{L}\p{N}_-]+$/u.test(typed) && !isNoise(typed) ? [typed] : valueIn(typed);
}

/** `NS1 ns1.quillmere.example`: a label that stands before its name without a mark. */
function withoutLabel(line: string): string {
  const [first, ...words] = line.split(/\s+/);
  return words.length === 1 &&
    HOST.test(words[0]!) &&
    !first!.includes('.') &&
    (labelOf(first!) === 'nameserver' || /^(?:ns|dns|#)\d{1,2}$/i.test(first!)) &&
    !sameLabel(first!, words[0]!)
    ? words[0]!
    : line;
}

/** "ns1 ns1.quillmere.example" has a label; "ns1 quillmere.example" has a blank in the place of a dot. */
function sameLabel(label: string, name: string): boolean {
  return !name.toLowerCase().startsWith(`${label.toLowerCase()}.`);
}

function valueIn(text: string): string[] {
  const words = text.split(/\s+/).filter((word) => word !== '');
  if (words.length === 0) return [];
  const hosts = words.filter((word) => HOST.test(word) && !isAddress(word));
  // Beside a name, addresses, numbers and buttons say nothing of it.
  const kept = hosts.length === 1 ? words.filter((word) => hosts.includes(word) || !(isAddress(word) || isNoise(word) || /^\d+$/.test(word))) : words;
  // A heading has words and no name.
  if (hosts.length === 0 && (labelOf(text) !== undefined || (words.length > 1 && !/[.,]/.test(text)) || words.every((word) => isNoise(word)))) return [];
  return [kept.join(' ')];
}
