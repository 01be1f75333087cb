import { TEXT_LIMIT, TextReading, Unread } from '@wanderon/core';
import { useState } from 'react';
import { LoadFile } from '../ui/loadFile';
import { FindGroup, findGroups } from './findGroups';
import { FindRow } from './findRow';
import { Mark, MarkedText } from './markedText';
import { PastedText, keyOf } from './pastedText';

/** Rows of a group that are shown; all are read and taken. */
const SHOWN = 200;
const ACCEPT = '.txt,.csv,.zone,.db,.html,.htm,.eml,.json,.yaml,.yml,text/*,message/rfc822,application/json';

/** The field for what people have, and beside it what was understood, each with its place in the text. */
export function Pasted({ pasted, label, rows = 20 }: { pasted: PastedText; label: string; rows?: number }) {
  const [mark, setMark] = useState<Mark>();
  const [problem, setProblem] = useState<string>();
  const { reading, text } = pasted;
  const isEmpty = text.trim() === '';
  const groups = findGroups(reading.finds, (find) => pasted.servedOf(find)?.is === 'same');
  const group = (one: FindGroup) => <Group key={one.key} group={one} pasted={pasted} mark={mark} onMark={setMark} />;
  const files = async (all: readonly File[]): Promise<void> => {
    setProblem(undefined);
    for (const file of all)
      if (file.size > TEXT_LIMIT) setProblem(`${file.name} is larger than ${TEXT_LIMIT / 1000} kB; nothing was read of it.`);
      else pasted.add(await file.text());
  };
  const look = (line: number): void => {
    const find = reading.finds.find((one) => one.line <= line && line <= one.lastLine);
    setMark(find && { line: find.line, lastLine: find.lastLine });
  };
  return (
    <div className={isEmpty ? '' : 'grid grid-cols-[minmax(0,2fr)_minmax(0,3fr)] gap-4 max-lg:grid-cols-1'}>
      <div>
        <MarkedText
          label={label}
          text={text}
          mark={isEmpty ? undefined : mark}
          rows={isEmpty ? 8 : rows}
          onChange={pasted.change}
          onFiles={(all) => {
            files(all).catch(() => setProblem('A file could not be read.'));
          }}
          onLine={look}
        />
        <p className="mt-1 text-sm text-faded">
          <LoadFile accept={ACCEPT} largest={TEXT_LIMIT} onText={pasted.add} /> or drop files here. More can be pasted below what is there.
        </p>
        {problem && (
          <p role="alert" className="text-sm text-rust">
            {problem}
          </p>
        )}
      </div>
      {!isEmpty && (
        <div className="min-w-0">
          <p role="status" className="font-semibold">
            {pasted.isReading ? 'Reading …' : gistOf(pasted)}
          </p>
          {pasted.isReading && <div className="mt-1 h-[3px] animate-pulse bg-accent" aria-hidden />}
          <div className="mt-1 overflow-y-auto" style={{ maxHeight: rows * 18 }} tabIndex={0} aria-label="What was understood">
            {groups.filter(({ key }) => key === 'ask').map(group)}
            <CannotBeRead reading={reading} onMark={setMark} />
            {groups.filter(({ key }) => key !== 'ask').map(group)}
            <GivesNothing reading={reading} onMark={setMark} />
          </div>
          {groups.some(({ key }) => key === 'ask') && (
            <p className="mt-1 text-sm text-faded">
              In a row: <kbd>y</kbd> takes it, <kbd>n</kbd> leaves it, a number takes another reading.
            </p>
          )}
        </div>
      )}
    </div>
  );
}

function gistOf({ reading: { finds, unread }, taken, servedOf }: PastedText): string {
  if (finds.length === 0) return 'Nothing was understood in it. A list of names, one a line, is always read.';
  const open = finds.filter((find) => find.trust === 'ask' && servedOf(find)?.is !== 'same').length;
  const wrong = unread.filter(({ problem }) => problem !== undefined).length;
  const parts = [
    `${taken.length} ${taken.length === 1 ? 'is' : 'are'} taken`,
    open > 0 && `${open} ${open === 1 ? 'is' : 'are'} asked about`,
    wrong > 0 && `${wrong} ${wrong === 1 ? 'line' : 'lines'} cannot be read`,
  ];
  return `${parts.filter(Boolean).join(', ')}.`;
}

function Group({ group, pasted, mark, onMark }: { group: FindGroup; pasted: PastedText; mark: Mark | undefined; onMark: (mark: Mark) => void }) {
  const { title, finds, isOut } = group;
  const allTaken = finds.every(pasted.isTaken);
  const rows = (
    <ul>
      {finds.slice(0, SHOWN).map((find, index) => (
        <FindRow
          key={`${keyOf(find)} ${index}`}
          find={find}
          pasted={pasted}
          isMarked={mark?.line === find.line}
          onMark={() => onMark({ line: find.line, lastLine: find.lastLine })}
        />
      ))}
      {finds.length > SHOWN && <li className="py-1 text-faded">and {finds.length - SHOWN} more, read as these</li>}
    </ul>
  );
  const head = (
    <>
      <span className="grow">{title}</span>
      <button
        type="button"
        className="shrink-0 text-sm text-accent hover:underline"
        onClick={(event) => {
          event.preventDefault();
          pasted.say(finds, allTaken ? 'leave' : 'take');
        }}
      >
        {allTaken ? 'leave all' : 'take all'}
      </button>
    </>
  );
  if (!isOut)
    return (
      <section className="mb-2">
        <h3 className="flex items-baseline gap-3 border-b border-ink font-semibold">{head}</h3>
        {rows}
      </section>
    );
  return (
    <details className="mb-2 text-faded">
      <summary className="flex cursor-pointer items-baseline gap-3 border-b border-rule">{head}</summary>
      {rows}
    </details>
  );
}

/** Lines that give something and cannot be read, each with what is wrong. */
function CannotBeRead({ reading, onMark }: { reading: TextReading; onMark: (mark: Mark) => void }) {
  const lines = reading.unread.filter(({ problem }) => problem !== undefined);
  if (lines.length === 0) return null;
  return (
    <section className="mb-2">
      <h3 className="border-b border-ink font-semibold text-rust">
        {lines.length} {lines.length === 1 ? 'line cannot' : 'lines cannot'} be read
      </h3>
      <Lines lines={lines} onMark={onMark} />
    </section>
  );
}

/** All other lines, folded: greetings, headings, buttons. */
function GivesNothing({ reading: { unread, leftOut }, onMark }: { reading: TextReading; onMark: (mark: Mark) => void }) {
  const lines = unread.filter(({ problem }) => problem === undefined);
  if (lines.length === 0 && leftOut === 0) return null;
  return (
    <details className="text-faded">
      <summary className="cursor-pointer border-b border-rule">
        {lines.length} {lines.length === 1 ? 'line gives' : 'lines give'} nothing
        {leftOut > 0 && `, and ${leftOut} beyond what is read`}
      </summary>
      <Lines lines={lines} onMark={onMark} />
    </details>
  );
}

function Lines({ lines, onMark }: { lines: readonly Unread[]; onMark: (mark: Mark) => void }) {
  return (
    <ul>
      {lines.slice(0, SHOWN).map(({ line, text, problem }) => (
        <li key={line} className="grid grid-cols-[4rem_1fr] gap-2 border-b border-rule py-0.5" onMouseEnter={() => onMark({ line, lastLine: line })}>
          <span className="text-faded">line {line}</span>
          <span className="min-w-0">
            <span className="mono break-words">{text}</span>
            {problem !== undefined && <span className="text-rust">: {problem}</span>}
          </span>
        </li>
      ))}
    </ul>
  );
}
