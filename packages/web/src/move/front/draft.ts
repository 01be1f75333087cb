import { AllGiven, AllGivenItem } from '@wanderon/contract';
import { WayId, givenKey } from '@wanderon/core';

/** What somebody does at the front door before the plan is made; it outlives a reload of the page. */
export interface Draft {
  readonly text: string;
  /** What was kept with the leg, or typed. */
  readonly items: readonly AllGivenItem[];
  /** What was said of each thing, by its key: taken or left. */
  readonly said: Readonly<Record<string, boolean>>;
  readonly names: Readonly<Record<string, boolean>>;
  readonly newDnsHost: string | null;
  readonly newWebHost: string | null;
  readonly way: WayId | undefined;
  readonly fresh: boolean;
  /** Undefined until somebody says. */
  readonly declineMail: boolean | undefined;
}

export const EMPTY_DRAFT: Draft = {
  text: '',
  items: [],
  said: {},
  names: {},
  newDnsHost: null,
  newWebHost: null,
  way: undefined,
  fresh: false,
  declineMail: undefined,
};

/** Where a draft is kept, by its leg. */
const placeOf = (leg: string): string => `front ${leg}`;

/** The draft that this browser has of a leg; undefined where it has none, or one that cannot be read. */
export function draftOf(leg: string): Draft | undefined {
  const kept = sessionStorage.getItem(placeOf(leg));
  if (kept === null) return undefined;
  try {
    return { ...EMPTY_DRAFT, ...(JSON.parse(kept) as Partial<Draft>) };
  } catch (error) {
    if (!(error instanceof SyntaxError)) throw error;
    return undefined;
  }
}

export function keepDraft(leg: string, draft: Draft): void {
  try {
    sessionStorage.setItem(placeOf(leg), JSON.stringify(draft));
  } catch (error) {
    // A text that is too large for the browser's store is there as long as the page is.
    if (!(error instanceof DOMException)) throw error;
  }
}

export function dropDraft(leg: string): void {
  sessionStorage.removeItem(placeOf(leg));
}

/** All that was given, as it is sent: what was typed and kept, then what was read; each with what was said of it. */
export function givenOf(draft: Draft, read: readonly AllGivenItem[]): AllGiven {
  const items = new Map<string, AllGivenItem>();
  for (const item of [...draft.items, ...read]) {
    const key = givenKey(item);
    const said = draft.said[key] ?? item.taken;
    if (!items.has(key)) items.set(key, { ...item, ...(said !== undefined && { taken: said }) });
  }
  return { items: [...items.values()], newDnsHost: draft.newDnsHost, newWebHost: draft.newWebHost, names: { ...draft.names } };
}
