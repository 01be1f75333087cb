import { NEW, OLD, decision, legOf, published, rows } from '../../testing/moving';
import { Leg } from '../leg';
import { stepOf } from '../steps';

/** The change was submitted at 1000, and one server of the parent holds the old zone as well. */
function shadowed(more: Parameters<typeof decision>[] = []): Leg {
  const now = 5000;
  return legOf({
    now,
    decisions: [decision('hosts'), { ...decision('submitted'), at: 1000 }, ...more.map((one) => decision(...one))],
    parent: [
      ...rows('a.nic.test.', '192.0.2.53', [0, 900, published(OLD)], [1200, now, published(NEW)]),
      ...rows('b.nic.test.', '192.0.2.54', [0, now, published(OLD, { holdsZone: true })]),
    ],
  });
}

describe('a server of the parent that holds the old zone as well', () => {
  it('is named, with what it means for whoever asks it, and has a way on', () => {
    const { standing } = stepOf(shadowed(), 'switch')!;
    expect(standing.text).toMatch(/b\.nic\.test holds the old zone itself and answers from it: whoever asks it is led to ns1\.old\.test, ns2\.old\.test until/);
    expect(standing.ways).toEqual([expect.objectContaining({ act: 'aside', subject: '192.0.2.54' })]);
  });

  it('is not waited for once somebody says so', () => {
    expect(shadowed().times.t0).toBeUndefined();
    expect(shadowed([['aside', '192.0.2.54']]).times.t0).toMatchObject({ firstNew: 1200 });
  });
});
