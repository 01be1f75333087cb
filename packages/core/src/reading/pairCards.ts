import { Line } from './lines';
import { Around, FormRead, NOTHING, Row } from './formRead';
import { labelOf } from './labels';
import { readRows } from './table';

/** Fields of one record. */
const MOST_FIELDS = 12;
const PAIR = /^([^:=\t]{1,40})[:=](.*)$/;
/** Characters of one field. */
const LONGEST_FIELD = 5000;

/**
 * Reads records of which each is a block of fields whose labels nobody knows: the same labels in each block are the columns of a table, and
 * what stands in them tells what they are.
 *
 *     Nimi: www
 *     Tyyppi: A
 *     Arvo: 192.0.2.1
 */
export function readPairCards(blocks: readonly (readonly Line[])[], around: Around): FormRead {
  const cards = blocks.flatMap((block) => {
    const pairs = block.map(({ text, cells }) => (cells === undefined && text.length <= LONGEST_FIELD ? PAIR.exec(text.trim()) : null));
    return block.length >= 3 && block.length <= MOST_FIELDS && pairs.every((pair) => pair !== null)
      ? [{ block, pairs: pairs.map((pair): readonly [string, string] => [pair![1]!.trim(), pair![2]!.trim()]) }]
      : [];
  });
  const first = cards[0];
  if (cards.length < 2 || !first) return NOTHING;
  const labels = first.pairs.map(([label]) => label);
  if (new Set(labels).size < labels.length || labels.every((label) => labelOf(label) !== undefined)) return NOTHING;
  const same = cards.filter(({ pairs }) => pairs.every(([label]) => labels.includes(label)));
  if (same.length < cards.length) return NOTHING;
  const rows = same.map(({ block, pairs }): Row => {
    const byLabel = new Map(pairs);
    return { line: block[0]!.line, lastLine: block.at(-1)!.line, cells: labels.map((label) => byLabel.get(label) ?? '') };
  });
  const found = readRows(
    rows,
    same.flatMap(({ block }) => block),
    { ...around, head: labels },
  );
  return found.records.length === rows.length ? { records: found.records.map((record) => ({ ...record, form: 'fields' })), read: found.read } : NOTHING;
}
