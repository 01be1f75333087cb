import { HintAnswer } from '@wanderon/contract';
import { Decision, Purpose } from '@wanderon/core';

/** What people said of a survey, by what it is about; a word that was taken back, or set to nothing, is not in it. */
export interface SaidOfSurvey {
  readonly hints: ReadonlyMap<string, HintAnswer>;
  readonly purposes: { owner: string; type: string; purpose: Purpose }[];
  readonly stored: ReadonlyMap<string, string[]>;
  readonly pages: string[];
}

export function saidOfSurvey(stands: readonly Decision[]): SaidOfSurvey {
  const last = <T>(kind: Decision['kind']): Map<string, T> => {
    const all = new Map(stands.filter((one) => one.kind === kind).map((one) => [one.subject, one.value as T | null]));
    return new Map([...all].filter((entry): entry is [string, T] => entry[1] !== null));
  };
  const purposes = [...last<Purpose>('purpose')].map(([subject, purpose]) => {
    const cut = subject.lastIndexOf(' ');
    return { owner: subject.slice(0, cut), type: subject.slice(cut + 1), purpose };
  });
  return { hints: last('hint'), purposes, stored: last('stored'), pages: last<string[]>('pages').get('') ?? [] };
}
