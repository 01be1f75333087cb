import { PART } from '../hosts/enter';
import { KnownStyle, styleOf } from '../hosts/entryStyle';
import { duration } from '../survey/duration';
import { lastOf, typedValue } from './records/typedValue';

/** A record set that somebody typed into a panel, and what its servers give since. */
export interface TypedSet {
  readonly type: string;
  /** In seconds, as the sheet wrote it; undefined where it wrote none, or where what is served says nothing of it. */
  readonly ttl: number | undefined;
  readonly served: { readonly ttl: number; readonly data: readonly string[] };
  /** Of the slips that explain what is served (`recordSlips`); empty where it is as planned. */
  readonly codes: readonly string[];
}

/** What a panel was seen to do with what is typed, and what may be noted of it: one of the choices. */
export interface Lesson {
  readonly key: string;
  /** What was seen, as a whole sentence that begins with "It": its panel. */
  readonly text: string;
  readonly choices: readonly LessonChoice[];
}

export interface LessonChoice {
  readonly label: string;
  readonly change: KnownStyle;
}

/** What each slip says of the panel in which it happened. A person's own slip says nothing of it, and is not here. */
const OF_SLIPS: Readonly<Record<string, (set: TypedSet) => Lesson | undefined>> = {
  'name appended': () => ({
    key: 'names',
    text: 'It appended the domain to a name that was typed whole.',
    choices: [{ label: 'Type names without the domain', change: { names: 'relative' } }],
  }),
  'apex as a name': () => ({
    key: 'apex',
    text: 'It took @ for a name of its own.',
    choices: [
      { label: 'Leave the field empty for the domain itself', change: { apex: 'empty' } },
      { label: 'Type the whole domain there', change: { apex: 'whole' } },
    ],
  }),
  'target gained the zone': () => ({
    key: 'targetDot',
    text: 'It appended the domain to a target without a dot at its end.',
    choices: [{ label: 'Type targets with a dot', change: { targetDot: 'required' } }],
  }),
  'quotes stored': ({ served }) =>
    served.data.some((data) => isLong(data))
      ? {
          key: 'longText',
          text: 'It kept the quotes between the parts of a long text.',
          choices: [{ label: 'Type long texts as one', change: { longText: 'whole', text: 'bare' } }],
        }
      : { key: 'text', text: 'It kept quotes as part of the text.', choices: [{ label: 'Type texts without quotes', change: { text: 'bare' } }] },
  'blanks lost': ({ type }) =>
    isText(type)
      ? { key: 'text', text: 'It dropped the blanks of a text without quotes.', choices: [{ label: 'Type texts in quotes', change: { text: 'quoted' } }] }
      : undefined,
  'text cut': ({ served }) =>
    served.data.some((data) => lastOf(typedValue('TXT', data)).length === PART)
      ? {
          key: 'longText',
          text: 'It cut a text after 255 characters.',
          choices: [{ label: 'Type long texts in quoted parts', change: { longText: 'parts' } }],
        }
      : undefined,
  'priority inside': () => ({
    key: 'priority',
    text: 'It has a field of its own for the priority.',
    choices: [{ label: 'Type the priority there', change: { priority: 'own field' } }],
  }),
};

/** Record sets that have to say the same of TTLs: one may have been typed otherwise. */
const ENOUGH = 2;

const isText = (type: string): boolean => type === 'TXT' || type === 'SPF';
const isLong = (data: string): boolean => lastOf(typedValue('TXT', data)).length > PART;

/**
 * What is to be learned of a panel from what its servers give for what was typed there; nothing of what is known already. Each thing once.
 *
 *     lessonsOf(null, [{ type: 'CNAME', ttl: 300, served: …, codes: ['target gained the zone'] }])
 *     // [{ key: 'targetDot', text: 'It appended the domain to a target without a dot at its end.', … }]
 */
export function lessonsOf(known: KnownStyle | null, sets: readonly TypedSet[]): Lesson[] {
  const ofSlips = sets.flatMap((set) => set.codes.flatMap((code) => OF_SLIPS[code]?.(set) ?? []));
  const lessons = [...ofSlips, ...ttlLesson(known, sets)];
  return lessons.filter(
    (lesson, index) => lessons.findIndex((one) => one.key === lesson.key) === index && lesson.choices.every(({ change }) => !isNoted(known, change)),
  );
}

/** Everything that it says is on record as said: it happened although it was known, or is noted. */
function isNoted(known: KnownStyle | null, change: KnownStyle): boolean {
  return Object.entries(change).every(([field, value]) => JSON.stringify(known?.[field as keyof KnownStyle]) === JSON.stringify(value));
}

/** One TTL for all, and another than what was typed: none can be given, or that is the least. */
function ttlLesson(known: KnownStyle | null, sets: readonly TypedSet[]): Lesson[] {
  if (styleOf(known).ttls === null) return [];
  const right = sets.filter((set) => set.codes.length === 0 && set.ttl !== undefined);
  const [first] = right;
  if (!first || right.length < ENOUGH || !right.every((set) => set.served.ttl === first.served.ttl && set.served.ttl !== set.ttl)) return [];
  const { ttl } = first.served;
  const none: LessonChoice = { label: 'No TTL can be set there', change: { ttls: null } };
  const least: LessonChoice = { label: `${duration(ttl)} is the least`, change: { ttls: [], leastTtl: ttl } };
  const isHigher = right.every((set) => ttl > set.ttl!);
  return [{ key: 'ttls', text: `It gave a TTL of ${duration(ttl)} where the sheet had another.`, choices: isHigher ? [none, least] : [none] }];
}
