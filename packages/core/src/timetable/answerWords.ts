import { SetKey, ownerOf, typeOf } from '../move/plan';
import { AnswerSight } from '../move/seen';
import { plain } from '../survey/words';

/** A set, or one answer to the question for it, in words for a sum. */
export function answerWords(key: SetKey, answer?: AnswerSight): string {
  const name = `${plain(ownerOf(key))} ${typeOf(key)}`;
  if (!answer) return name;
  if (answer.data.length === 0) return `that ${name} does not exist`;
  return `${name} as ${answer.data.length === 1 ? answer.data[0]!.slice(0, 60) : `${answer.data.length} records`}`;
}
