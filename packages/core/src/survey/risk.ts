import { Coverage } from './coverage';
import { GRADE_WORDS, counted } from './words';

/** A survey in a few numbers. */
export interface SurveyGist {
  readonly grade: Coverage['grade'];
  readonly sets: number;
  readonly stops: number;
  readonly looks: number;
  readonly hints: number;
  /** Sets whose stored value is not known. */
  readonly fronted: number;
  readonly varying: number;
  /** Sets about which sources disagree. */
  readonly conflicts: number;
}

export interface Risk {
  /** The more, the sooner somebody should look. */
  readonly score: number;
  readonly words: string;
}

/** How much care a domain needs before it is moved; `undefined` where its survey failed, which needs most. */
export function riskOf(gist: SurveyGist | undefined): Risk {
  if (!gist) return { score: 1_000_000, words: 'nothing is known' };
  const parts: (readonly [number, string])[] = [
    [gist.stops * 10_000, counted(gist.stops, 'thing that stops the move', 'things that stop the move')],
    [gist.sets === 0 ? 5000 : 0, 'nothing of the zone was had'],
    [gist.grade === 'partial' && gist.sets > 0 ? 1000 : gist.grade === 'likely whole' ? 100 : 0, GRADE_WORDS[gist.grade]],
    [gist.fronted * 300, `${counted(gist.fronted, 'stored value')} not known`],
    [gist.hints * 50, counted(gist.hints, 'hint')],
    [gist.looks * 40, `${gist.looks} to look at`],
    [gist.conflicts * 30, counted(gist.conflicts, 'conflict')],
    [gist.varying * 20, `${gist.varying} varying`],
  ];
  const there = parts.filter(([score]) => score > 0);
  return { score: there.reduce((sum, [score]) => sum + score, 0), words: there.map(([, words]) => words).join(', ') || 'nothing in the way' };
}
