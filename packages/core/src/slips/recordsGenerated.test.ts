import { answerOf, typedZone } from '../testing/slips/recordSlips';
import { askedInstead, recordSlips } from './recordSlips';

/** `READ_SLIPS=20000` tries as many as a change of a rule is tried with. */
const SETS = Number(process.env['READ_SLIPS'] ?? 1500);
/** Names and types that are asked besides, as of one row that is missing. */
const ASKED = 120;

describe('records of every kind of slip, or of none', () => {
  let wanted = 0;
  let named = 0;
  const missed = new Map<string, string[]>();
  const claimed: string[] = [];
  for (let seed = 1; seed <= SETS; seed++) {
    const typed = typedZone(seed);
    const { zone, owner, type, rows, found, truth } = typed;
    const planned = rows.find((row) => row.owner === owner && row.type === type)!.planned;
    const asked = new Set([...askedInstead({ owner, type, zone }, ASKED), ...rows].map((one) => `${one.owner} ${one.type}`));
    const slips = recordSlips({
      ...{ zone, owner, type, planned, rows, served: answerOf(typed, owner, type), found: found.get(`${owner} ${type}`) ?? [] },
      elsewhere: (at, as) => (asked.has(`${at} ${as}`) ? answerOf(typed, at, as) : undefined),
      isFront: () => false,
    });
    const told = `${owner} ${type} ${planned.join(', ').slice(0, 120)} is ${answerOf(typed, owner, type).join(', ').slice(0, 120)} → ${slips.map(({ code, text }) => `[${code}] ${text}`).join(' / ')}`;
    const all = slips.map(({ text }) => text).join(' ');
    for (const { kind, codes, says } of truth) {
      wanted++;
      if (slips.some(({ code }) => codes.includes(code)) && all.includes(says)) named++;
      else missed.set(kind, [...(missed.get(kind) ?? []), told]);
    }
    if (truth.length === 0 && slips.length > 0) claimed.push(told);
  }
  const shown = [...missed]
    .map(
      ([kind, list]) =>
        `${kind}: ${list.length}\n  ${list
          .slice(0, Number(process.env['SHOW'] ?? 2))
          .map((line) => line.slice(0, 500))
          .join('\n  ')}`,
    )
    .join('\n');
  if (process.env['SHOW']) console.log(`${named} of ${wanted}\n${shown}\n${claimed.length}\n${claimed.slice(0, 10).join('\n')}`);

  it('are named truly, at least 95 of 100, with what to type', () => {
    expect(wanted).toBeGreaterThan(SETS / 2);
    expect(named / wanted > 0.95 ? '' : shown).toBe('');
  });
  it('are never named where none explains it', () => expect(claimed.slice(0, 5)).toEqual([]));
});
