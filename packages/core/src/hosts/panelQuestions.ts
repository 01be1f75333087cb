import { hasTarget } from '../slips/records/typedValue';
import { Entry, PART } from './enter';
import { KnownStyle } from './entryStyle';
import { SheetRow } from './sheet';

/** One thing about a panel that whoever stands before it can see. */
export interface PanelQuestion {
  readonly field: 'names' | 'targetDot' | 'priority' | 'longText';
  readonly question: string;
  readonly answers: readonly { readonly label: string; readonly change: KnownStyle }[];
}

/**
 * What is asked of a panel on its sheet, of what nobody has said yet and what these rows need; the most telling first. `domain` without final dot.
 *
 *     panelQuestions({ names: 'relative' }, rows, 'choir.example')  // whether a target ends in a dot, where the priority goes, …
 */
export function panelQuestions(known: KnownStyle | null, rows: readonly SheetRow[], domain: string): PanelQuestion[] {
  const entries = rows.flatMap(({ entry }) => entry ?? []);
  const target = entries.find(({ type }) => hasTarget(type));
  const ranked = entries.find(({ type }) => type === 'MX' || type === 'SRV');
  const host = target ? (target.value.split(' ').at(-1) ?? '').replace(/\.$/, '') : '';
  const asked: (PanelQuestion | undefined)[] = [
    named(entries, domain),
    target && {
      field: 'targetDot',
      question: 'Where a record leads, it is typed as',
      answers: [
        { label: host, change: { targetDot: 'refused' } },
        { label: `${host}.`, change: { targetDot: 'required' } },
        { label: 'one or the other', change: { targetDot: 'either' } },
      ],
    },
    ranked && {
      field: 'priority',
      question: `The priority of ${ranked.type === 'MX' ? 'an MX' : 'an SRV'} goes`,
      answers: [
        { label: 'into a field of its own', change: { priority: 'own field' } },
        { label: 'before the value', change: { priority: 'in value' } },
      ],
    },
    entries.some(({ type, value }) => (type === 'TXT' || type === 'SPF') && value.length > PART)
      ? {
          field: 'longText',
          question: `A text of more than ${PART} characters is typed`,
          answers: [
            { label: 'in one piece', change: { longText: 'whole' } },
            { label: 'in parts, each in quotes', change: { longText: 'parts' } },
          ],
        }
      : undefined,
  ];
  return asked.filter((one) => one !== undefined).filter(({ field }) => known?.[field] === undefined);
}

/** How a name is typed: shown by www, or else by the first one that is not the domain itself. */
function named(entries: readonly Entry[], domain: string): PanelQuestion | undefined {
  const names = entries.flatMap(({ name }) =>
    name === '@' || name === '' || name === domain ? [] : [name.endsWith(`.${domain}`) ? name.slice(0, -domain.length - 1) : name],
  );
  const short = names.find((name) => name === 'www') ?? names[0];
  if (short === undefined) return undefined;
  return {
    field: 'names',
    question: `For ${short}, the panel wants`,
    answers: [
      { label: short, change: { names: 'relative' } },
      { label: `${short}.${domain}`, change: { names: 'whole', apex: 'whole' } },
    ],
  };
}
