import { Name, NameError } from '../../../dns/name';
import { typedOwner } from '../slip';
import { showsAs } from './showsAs';

export interface NearOwner {
  /** Absolute, with final dot. */
  readonly owner: string;
  /** What happened to the name: "the underscore is missing". */
  readonly what: string;
  /** What the panel did with the name: it appended the domain to the whole one, or took the sign for the domain as a name. */
  readonly byPanel?: 'name appended' | 'apex as a name';
}

/**
 * Names under which a set may have been saved instead of its own, the most usual first, each with what happened to the name. Each is another
 * name of the zone.
 *
 *     nearOwners('_dmarc.choir.example.', 'choir.example.')
 *     // _dmarc.choir.example.choir.example., dmarc.choir.example., choir.example., …
 */
export function nearOwners(owner: string, zone: string): NearOwner[] {
  const found = new Map<string, NearOwner>();
  const own = keyOf(owner);
  const add = (text: string, what: string, byPanel?: NearOwner['byPanel']): void => {
    const name = nameOf(text);
    if (name !== undefined && name.toLowerCase() !== own && !found.has(name.toLowerCase()))
      found.set(name.toLowerCase(), { owner: name, what, ...(byPanel && { byPanel }) });
  };
  const relative = owner.toLowerCase() === zone.toLowerCase() ? '' : owner.slice(0, -zone.length - 1);
  const below = (text: string, what: string, byPanel?: NearOwner['byPanel']): void => {
    if (text !== relative && text !== '' && !text.startsWith('.') && !text.endsWith('.') && !text.includes('..')) add(`${text}.${zone}`, what, byPanel);
  };
  const appended = nameOf(`${owner}${zone}`);
  if (appended !== undefined)
    found.set(appended.toLowerCase(), { owner: appended, what: 'the panel appended the domain to a name that was typed whole', byPanel: 'name appended' });
  if (relative === '') {
    below('\\@', 'the panel took @ as a name', 'apex as a name');
    below('www', 'it was saved for www, and the domain itself was meant');
    below('\\"\\@\\"', 'the panel took @ as a name', 'apex as a name');
    below(zone.split('.')[0]!, 'the domain was typed as a name below it');
    below('root', 'the panel took a word for the domain as a name');
    below('\\*', 'it was saved for all names below, and the domain itself was meant');
    return [...found.values()];
  }
  if (relative === 'www') add(zone, 'it was saved for the domain itself');
  if (/_/.test(relative)) {
    below(relative.replace(/_/g, ''), relative.split('_').length > 2 ? 'the underscores are missing' : 'the underscore is missing');
    for (const at of places(relative, '_')) below(relative.slice(0, at) + relative.slice(at + 1), 'an underscore is missing');
    below(relative.replace(/_/g, '-'), 'a hyphen stands where an underscore belongs');
  }
  for (const at of places(relative, '.')) {
    below(relative.slice(0, at) + relative.slice(at + 1), 'a dot is missing');
    below(`${relative.slice(0, at)}\\.${relative.slice(at + 1)}`, 'the panel took a dot as part of the name');
    below(`${relative.slice(0, at)}-${relative.slice(at + 1)}`, 'a hyphen stands where a dot belongs');
  }
  if (relative.includes('-')) {
    below(relative.replace(/-/g, ''), 'the hyphen is missing');
    below(relative.replace(/-/g, '_'), 'an underscore stands where a hyphen belongs');
    below(relative.replace(/-/g, '.'), 'a dot stands where a hyphen belongs');
  }
  if (relative.split('.')[0] === '*') {
    const rest = relative.slice(1);
    for (const star of ['\\"*\\"', 'star', '%2a', '\\@', '**', '_', 'wildcard']) below(`${star}${rest}`, 'the panel took the star as text');
    if (rest !== '') below(rest.slice(1), 'the star is missing');
  }
  if (relative.includes('www'))
    for (const w of ['wwww', 'ww', 'www.www', 'wwwww']) below(relative.replace('www', w), w.length > 3 ? 'there is a w too many' : 'a w is missing');
  if (relative !== '*' && relative !== 'www') add(zone, 'the name was left empty');
  below(`www.${relative}`, 'www stands in front of the name');
  if (relative.includes('.')) {
    below(relative.slice(0, relative.lastIndexOf('.')), 'the end of the name is missing');
    below(relative.slice(relative.indexOf('.') + 1), 'the beginning of the name is missing');
  }
  for (const [from, to] of LOOK_ALIKE)
    for (const at of places(relative, from)) below(relative.slice(0, at) + to + relative.slice(at + 1), `“${to}” stands in it for “${from}”`);
  // Slips of the finger: there are many, so that they come last.
  for (let at = 0; at + 1 < relative.length; at++)
    if (isLetter(relative[at]) && isLetter(relative[at + 1]))
      below(relative.slice(0, at) + relative[at + 1]! + relative[at]! + relative.slice(at + 2), 'two letters of the name are exchanged');
  for (let at = 0; at < relative.length; at++)
    if (isLetter(relative[at])) below(relative.slice(0, at) + relative.slice(at + 1), `“${relative[at]}” is missing in the name`);
  for (let at = 0; at < relative.length; at++)
    if (isLetter(relative[at])) below(relative.slice(0, at) + relative[at]! + relative.slice(at), `“${relative[at]}” stands twice in the name`);
  return [...found.values()];
}

/** Where one set stands that is to stand at `owner`, in words; with what to type. */
export function savedAt({ owner: near, what }: NearOwner, owner: string, zone: string): string {
  return `It stands at ${showsAs(near)}: ${what}. Type ${typedOwner(owner, zone)} as the name.`;
}

const LOOK_ALIKE: readonly (readonly [string, string])[] = [
  ['1', 'l'],
  ['l', '1'],
  ['0', 'o'],
  ['o', '0'],
  ['i', '1'],
  ['1', 'i'],
];

const isLetter = (character: string | undefined): boolean => character !== undefined && /[a-z0-9]/i.test(character);

function places(text: string, mark: string): number[] {
  return [...text].flatMap((character, at) => (character === mark && text[at - 1] !== '\\' ? [at] : []));
}

const keyOf = (owner: string): string => nameOf(owner)?.toLowerCase() ?? owner.toLowerCase();

/** As names are written everywhere else; undefined where it is none, or too long. */
function nameOf(text: string): string | undefined {
  try {
    return Name.parse(text).toString();
  } catch (error) {
    if (!(error instanceof NameError)) throw error;
    return undefined;
  }
}
