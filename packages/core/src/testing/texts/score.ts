import { Name } from '../../dns/name';
import { parseRdata, printRdata } from '../../dns/rdata';
import { textOf } from '../../survey/namesInText';
import { typeCode } from '../../dns/typeNames';
import { Find, TextReading } from '../../reading/find';
import { TextCase } from './oldTexts';
import { TextRecord } from './zone';

export interface Score {
  /** Every record of the truth was found, sure or asked, and none is wrong and sure. */
  readonly isRight: boolean;
  /** Records taken as sure that the text does not give. */
  readonly wrongSure: readonly string[];
  /** Records of the truth that were found neither sure nor asked. */
  readonly missing: readonly string[];
  /** Share of the truth that was asked about. */
  readonly asked: number;
}

/** Holds what was read against what the text truly says. Texts compare as their readers put them together, whatever their strings. */
export function scoreOf(reading: TextReading, { zone, truth, notWhole }: TextCase): Score {
  const apex = Name.parse(`${zone}.`);
  const records = reading.finds.filter(({ kind, trust, type }) => kind === 'record' && trust !== 'out' && type !== 'SOA');
  const wanted = new Map(truth.map((record) => [keyOf(record, apex), record]));
  const sure = records.filter(({ trust }) => trust === 'sure');
  const wrongSure = sure.map((find) => keyOf(find, apex)).filter((key) => !wanted.has(key));
  const all = new Set(records.flatMap((find) => [keyOf(find, apex), ...find.others.map((other) => keyOf({ ...find, ...other }, apex))]));
  const surely = new Set(sure.map((find) => keyOf(find, apex)));
  const missing = [...wanted.keys()].filter((key) => !all.has(key));
  for (const { owner, type } of notWhole) {
    const found = records.find((find) => find.type === type && find.trust === 'ask' && nameKey(find.owner, apex) === nameKey(owner, apex));
    if (!found) missing.push(`${owner} ${type}, which is not whole`);
  }
  return {
    isRight: wrongSure.length === 0 && missing.length === 0,
    wrongSure,
    missing,
    asked: [...wanted.keys()].filter((key) => !surely.has(key)).length / Math.max(1, wanted.size),
  };
}

const nameKey = (owner: string, apex: Name): string => Name.parse(owner, apex).key;

function keyOf({ owner, type, data }: Pick<TextRecord | Find, 'owner' | 'type' | 'data'>, apex: Name): string {
  const name = Name.tryParse(owner, apex)?.toString().toLowerCase() ?? owner;
  const code = typeCode(type);
  if (code === undefined || data === '') return `${name} ${type} ${data}`;
  const octets = parseRdata(code, data, apex);
  return `${name} ${type} ${type === 'TXT' ? JSON.stringify(textOf(octets)) : printRdata(code, octets).toLowerCase()}`;
}
