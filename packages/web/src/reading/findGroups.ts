import { Find, Form } from '@wanderon/core';

/** Finds that are shown together, with a title that says what they are. */
export interface FindGroup {
  readonly key: string;
  readonly title: string;
  readonly finds: readonly Find[];
  readonly isOut: boolean;
}

const FROM: Readonly<Record<Form, string>> = {
  'zone file': 'a zone file',
  table: 'a table',
  fields: 'fields',
  list: 'a list',
  json: 'JSON',
  yaml: 'YAML',
  query: 'answers of a query',
  'mail headers': 'the headers of a mail',
  'page source': 'lines that were not read',
  names: 'a list',
  sentence: 'sentences',
};

/**
 * Questions first, then what is sure by the form that it stood in, then what is left out by the reason. `isAnswered`: what is served answers it.
 *
 *     findGroups(finds).map(({ title }) => title)  // ['2 questions', '12 records from a table', '4 left out: It stands under an example.']
 */
export function findGroups(finds: readonly Find[], isAnswered: (find: Find) => boolean = () => false): FindGroup[] {
  const groups = new Map<string, { title: (count: number) => string; finds: Find[]; isOut: boolean; place: number }>();
  const put = (key: string, place: number, isOut: boolean, find: Find, title: (count: number) => string): void => {
    const group = groups.get(key);
    if (group) group.finds.push(find);
    else groups.set(key, { title, finds: [find], isOut, place });
  };
  for (const find of finds) {
    if (find.trust === 'ask' && isAnswered(find))
      put('answered', 1, false, find, (count) => `${count === 1 ? '1 question' : `${count} questions`}, answered by what the server gives`);
    else if (find.trust === 'ask') put('ask', 0, false, find, (count) => (count === 1 ? '1 question' : `${count} questions`));
    else if (find.trust === 'out') put(`out ${find.questions[0] ?? ''}`, 2, true, find, (count) => `${count} left out. ${find.questions[0] ?? ''}`);
    else put(`sure ${find.kind} ${find.form}`, 1, false, find, (count) => `${count} ${nounOf(find, count)} from ${FROM[find.form]}`);
  }
  return [...groups]
    .sort(([, a], [, b]) => a.place - b.place)
    .map(([key, { title, finds: all, isOut }]) => ({ key, title: title(all.length), finds: all, isOut }));
}

function nounOf({ kind }: Find, count: number): string {
  const one = kind === 'address' ? 'address' : kind;
  return count === 1 ? one : kind === 'address' ? 'addresses' : `${one}s`;
}
