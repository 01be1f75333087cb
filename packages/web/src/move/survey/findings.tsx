import { FindingView, MoveSurvey } from '@wanderon/contract';

const WORDS: Readonly<Record<FindingView['weight'], string>> = { stop: 'Stop', look: 'Look', note: 'Note' };

/** What was noticed and will hurt later, the gravest first, and what hangs together with the domain elsewhere. */
export function Findings({ survey }: { survey: MoveSurvey }) {
  const { findings, ties } = survey;
  if (findings.length === 0 && ties.length === 0) return null;
  return (
    <div className="mb-4">
      <h3 className="smallcaps border-b border-ink">What to know before it moves</h3>
      <ul>
        {findings.map((finding) => (
          <Line key={finding.text} word={WORDS[finding.weight]} weight={finding.weight} text={finding.text} />
        ))}
        {ties.map((tie) => (
          <Line key={`${tie.owner}${tie.text}`} word="Tie" weight="look" text={tie.text} />
        ))}
      </ul>
    </div>
  );
}

function Line({ word, weight, text }: { word: string; weight: FindingView['weight']; text: string }) {
  return (
    <li className="grid grid-cols-[3.2rem_1fr] gap-3 border-b border-rule py-1 leading-snug">
      <span className={weight === 'stop' ? 'font-semibold text-rust' : weight === 'look' ? 'font-semibold' : 'text-faded'}>{word}</span>
      <span className={`max-w-[62rem] ${weight === 'note' ? 'text-faded' : ''}`}>{text}</span>
    </li>
  );
}
