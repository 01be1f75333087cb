import { GRADE_WORDS, EXPORT_HEADING, Name, exportRows, exportZoneFile } from '@wanderon/core';
import { MoveSurvey } from '@wanderon/contract';
import { csv } from '../../ui/csv';
import { saveFile } from '../../ui/saveFile';
import { Item, exportedSets } from './surveyRows';

/** The inventory to take along; what it claims of itself goes with it. */
export function Exports({ survey, items, zone, domain }: { survey: MoveSurvey; items: readonly Item[]; zone: Name; domain: string }) {
  const forms = [
    [
      'zone file',
      `${domain}.zone`,
      'text/dns',
      () => exportZoneFile(zone, exportedSets(items), [`Inventory: ${GRADE_WORDS[survey.coverage.grade]}.`, ...survey.coverage.reasons]),
    ],
    ['CSV', `${domain}.csv`, 'text/csv', () => csv(EXPORT_HEADING, exportRows(exportedSets(items)))],
    ['JSON', `${domain}.json`, 'application/json', () => JSON.stringify(survey, null, 1)],
  ] as const;
  return (
    <span className="flex items-baseline gap-3 text-sm">
      <span className="text-faded">Save as</span>
      {forms.map(([title, file, type, make]) => (
        <button key={title} type="button" className="cursor-pointer text-accent hover:underline" onClick={() => saveFile(file, type, make())}>
          {title}
        </button>
      ))}
    </span>
  );
}
