import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { CHAPTERS, Chapter, LEG_KINDS, STEP_RULES } from '@wanderon/core';

/** Where each chapter is drawn; a change in place has a page of its own. */
const PAGES: Readonly<Record<Chapter, readonly string[]>> = {
  survey: ['survey/survey'],
  rebuild: ['rebuild/rebuild'],
  timetable: ['timetable/timetable'],
  switch: ['switch/switch', 'switch/changeInPlace'],
  watch: ['watch/watch'],
};

const sourceOf = (page: string): string => readFileSync(join(__dirname, `${page}.tsx`), 'utf8');

describe('every step that there is stands on the page of its chapter', () => {
  const cases = CHAPTERS.flatMap((chapter) => PAGES[chapter].map((page) => ({ chapter, page })));

  it.each(cases)('$chapter: $page shows its steps, or has a place of its own for each', ({ chapter, page }) => {
    const source = sourceOf(page);
    const rules = STEP_RULES.filter((rule) => rule.chapter === chapter);
    expect(rules.length).toBeGreaterThan(0);
    const shown = new RegExp(`<ChapterSteps[^>]*chapter="${chapter}"[^>]*?(?:elsewhere=\\{\\[(?<elsewhere>[^\\]]*)\\]\\})?\\s*/>`).exec(source);
    // What the page keeps for itself it has to name: a button, a form, a note.
    const elsewhere = shown ? [...(shown.groups?.['elsewhere'] ?? '').matchAll(/'([^']+)'/g)].map(([, id]) => id!) : rules.map((rule) => rule.id);
    for (const id of elsewhere) {
      expect(rules.map((rule) => rule.id)).toContain(id);
      const own = source.replace(/<ChapterSteps[\s\S]*?\/>/g, '');
      expect([id, own.includes(`stepIn(leg, '${id}')`) || PLACES[id]?.test(own)]).toEqual([id, true]);
    }
  });

  it('goes over every kind of leg', () => expect(LEG_KINDS).toEqual(['delegation', 'repoint']));
});

/** Steps whose place on the page is a part of its own. */
const PLACES: Readonly<Record<string, RegExp>> = { choose: /<FrontDoor/, named: /<GivenNames/ };
