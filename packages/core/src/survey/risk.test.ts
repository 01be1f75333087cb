import { SurveyGist, riskOf } from './risk';

const gist = (more: Partial<SurveyGist> = {}): SurveyGist => ({
  grade: 'whole',
  sets: 9,
  stops: 0,
  looks: 0,
  hints: 0,
  fronted: 0,
  varying: 0,
  conflicts: 0,
  ...more,
});

describe('risk', () => {
  it('is least where nothing is in the way, and most where nothing is known', () => {
    const order = [
      gist(),
      gist({ looks: 1 }),
      gist({ grade: 'likely whole' }),
      gist({ grade: 'partial' }),
      gist({ grade: 'partial', fronted: 1 }),
      gist({ stops: 1 }),
      undefined,
    ];
    const scores = order.map((one) => riskOf(one).score);
    expect([...scores].sort((a, b) => a - b)).toEqual(scores);
    expect(new Set(scores).size).toBe(scores.length);
  });

  it('says why', () => {
    expect(riskOf(gist()).words).toBe('nothing in the way');
    expect(riskOf(gist({ grade: 'partial', hints: 2, stops: 1 })).words).toBe('1 thing that stops the move, incomplete, 2 hints');
  });
});
