import { MoveSurvey } from '@wanderon/contract';
import { GRADE_WORDS, counted } from '@wanderon/core';
import { ReactNode, useState } from 'react';
import { fullTime, shortTime } from '../../time';

/** Reasons that are shown at first. */
const SHOWN = 3;

/** What the survey claims of itself, first of all, and what would close what is open. */
export function Coverage({ survey, children }: { survey: MoveSurvey; children?: ReactNode }) {
  const [all, setAll] = useState(false);
  const { reasons } = survey.coverage;
  const open = survey.hints.filter((hint) => hint.answer === null).length;
  const unknown = survey.sets.filter((set) => set.fronted !== null && set.stored === null).length;
  return (
    <div className="mb-4 flex items-start justify-between gap-6 max-md:flex-col max-md:gap-3">
      <div className="max-w-[62rem]">
        <h2 className="text-[1.25rem] leading-tight">The inventory is {GRADE_WORDS[survey.coverage.grade]}</h2>
        {(all ? reasons : reasons.slice(0, SHOWN)).map((reason) => (
          <p key={reason}>{reason}</p>
        ))}
        {!all && reasons.length > SHOWN && (
          <button type="button" className="cursor-pointer text-accent hover:underline" onClick={() => setAll(true)}>
            and {counted(reasons.length - SHOWN, 'more reason')}
          </button>
        )}
        {unknown > 0 && (
          <p className="font-semibold text-rust">
            Of {counted(unknown, 'record set')} the host answers something else than it stores, and what it stores is not known. Read it in the host’s panel, or
            give an export.
          </p>
        )}
        <p className="text-faded">
          <span title={fullTime(survey.takenAt)}>Taken {shortTime(survey.takenAt)}</span> · {counted(survey.sets.length, 'record set')}
          {survey.asked > 0 && ` · ${counted(survey.asked, 'question')} put`}
          {survey.hints.length > 0 && ` · ${open === 0 ? 'every sign answered' : `${counted(open, 'sign')} open`}`}
        </p>
      </div>
      <div className="flex shrink-0 flex-wrap gap-2">{children}</div>
    </div>
  );
}
