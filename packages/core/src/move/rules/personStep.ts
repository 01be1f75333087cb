import { Chapter, StepRule, Way, stands } from './rule';

const DONE = (subject: string): Way => ({ act: 'done', subject, label: 'It is done', means: '' });
export const leaveWay = (subject: string, label = 'Leave it out', means = 'The move goes on without it.'): Way => ({ act: 'leave', subject, label, means });
export const againWay = (subject: string): Way => ({ act: 'open again', subject, label: 'Open it again', means: '' });

/** A step that is somebody's word: done, or left out, and opened again. `leave`: what leaving it out is here. */
export function personStep(
  { id, title, chapter, after }: { readonly id: string; readonly title: string; readonly chapter: Chapter; readonly after: readonly string[] },
  text: string,
  leave: Way = leaveWay(id),
): StepRule {
  return {
    ...{ id, title, chapter, after, label: undefined, by: 'person', counts: 'done', applies: () => true },
    standing: ({ said }) => {
      const [done, left] = [said.done.get(id), said.left.get(id)];
      if (done) return stands('done', { doneAt: done.at, decision: done, ways: [againWay(id)] });
      if (left) return stands('left', { doneAt: left.at, decision: left, ways: [againWay(id)] });
      return stands('ready', { text, ways: [DONE(id), leave] });
    },
  };
}
