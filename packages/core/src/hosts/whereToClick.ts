import { capital } from '../survey/words';

/** What somebody does in the panel of a place, by its role; each has a way there of its own. */
export const PLACE_ACTS = ['records', 'zone', 'sign', 'site', 'nameservers', 'ds'] as const;
export type PlaceAct = (typeof PLACE_ACTS)[number];

export const ACTS_OF_ROLE = {
  dns: ['records', 'zone', 'sign'],
  web: ['site'],
  registrar: ['nameservers', 'ds'],
} as const satisfies Readonly<Record<'dns' | 'web' | 'registrar', readonly PlaceAct[]>>;

export const PLACE_ACT_WORDS: Readonly<Record<PlaceAct, string>> = {
  records: 'the records of a domain',
  zone: 'adding a domain',
  sign: 'signing a zone',
  site: 'adding a site',
  nameservers: 'the nameservers of a domain',
  ds: 'the DS of a domain',
};

/** Where in a panel one thing is done. Empty texts: not said; all three empty: somebody was asked and did not want to note it. */
export interface WhereToClick {
  readonly act: PlaceAct;
  /** Opens the page itself, or where one logs in; `{zone}` stands for the domain. */
  readonly link: string;
  /** From there: "Domains › {zone} › Name servers". */
  readonly path: string;
  /** What has to be done first: a plan bought, a mailbox verified, nameservers of one's own chosen. */
  readonly first: string;
}

/** The way to a page as it is shown: what is first, the link, and the words that are clicked one after the other. */
export interface WayThere {
  readonly link: string | undefined;
  readonly clicks: readonly string[];
  readonly first: string | undefined;
}

/** Marks that people write between what is clicked. */
const BETWEEN = /\s*(?:›|»|→|⇒|>+|->|\s\/\s)\s*/;

/**
 * The way to where an act is done at a place, for a domain; undefined where nobody has said it. `login`: where one logs in, empty where it is not
 * known.
 *
 *     wayThere({ login: '', where: [{ act: 'records', link: '', path: 'Domains > {zone} > DNS', first: '' }] }, 'records', 'choir.example')
 *     // { link: undefined, clicks: ['Domains', 'choir.example', 'DNS'], first: undefined }
 */
export function wayThere(
  { login, where }: { readonly login: string; readonly where: readonly WhereToClick[] },
  act: PlaceAct,
  domain: string,
): WayThere | undefined {
  const said = where.find((one) => one.act === act);
  const fill = (text: string): string => text.replaceAll('{zone}', domain);
  const link = fill(said?.link ?? '') || login || undefined;
  const clicks = fill(said?.path ?? '')
    .split(BETWEEN)
    .filter((click) => click !== '');
  const first = said?.first || undefined;
  return link === undefined && clicks.length === 0 && first === undefined ? undefined : { link, clicks, first: first && sentence(first) };
}

/** Whether somebody was asked for it before: it is asked for once. */
export function wasAsked(where: readonly WhereToClick[], act: PlaceAct): boolean {
  return where.some((one) => one.act === act);
}

/** Says why a text is no address of a page; undefined where it is one. Only pages are opened: nothing that a browser would run. */
export function linkProblem(text: string): string | undefined {
  if (text === '') return undefined;
  if (!/^https?:\/\/[^\s/?#@]+(?:[/?#]\S*)?$/i.test(text)) return 'This is no address of a page: it begins with https:// and has no blank.';
  return undefined;
}

const sentence = (text: string): string => capital(/[.!?]$/.test(text) ? text : `${text}.`);
