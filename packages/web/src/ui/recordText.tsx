import { Piece } from '@wanderon/core';
import { Fragment } from 'react';

/** Where a value may go on in the next line: after what parts its words. */
const BREAKS = /(?<=[.\s"/,;:=@-])/;
/** Characters of the end that are shown of a value that is shortened in its middle. */
const END = 14;

/** Record data whole, over as many lines as it needs, with the changed characters marked; it breaks where its syntax does. */
export function RecordText({ pieces }: { pieces: readonly Piece[] }) {
  return (
    <span className="mono [overflow-wrap:anywhere]">
      {pieces.map((piece, index) => (
        <Marked key={index} changed={piece.changed}>
          {piece.text.split(BREAKS).map((word, at) => (
            <Fragment key={at}>
              {at > 0 && <wbr />}
              {word}
            </Fragment>
          ))}
        </Marked>
      ))}
    </span>
  );
}

/** Record data on one line: where it has no room it is shortened in its middle, so that both ends tell. */
export function ShortText({ pieces }: { pieces: readonly Piece[] }) {
  const length = pieces.reduce((sum, piece) => sum + piece.text.length, 0);
  const [head, tail] = length > 2 * END ? cut(pieces, length - END) : [pieces, []];
  const shown = (all: readonly Piece[]) =>
    all.map((piece, index) => (
      <Marked key={index} changed={piece.changed}>
        {piece.text}
      </Marked>
    ));
  return (
    <span className="mono flex min-w-0 whitespace-pre" title={length > 2 * END ? pieces.map((piece) => piece.text).join('') : undefined}>
      <span className="truncate">{shown(head)}</span>
      {tail.length > 0 && <span className="shrink-0">{shown(tail)}</span>}
    </span>
  );
}

function Marked({ changed, children }: { changed: boolean; children: React.ReactNode }) {
  return changed ? <mark className="changed text-ink">{children}</mark> : <span>{children}</span>;
}

function cut(pieces: readonly Piece[], at: number): [Piece[], Piece[]] {
  const [head, tail]: [Piece[], Piece[]] = [[], []];
  let from = 0;
  for (const { text, changed } of pieces) {
    const here = Math.max(0, Math.min(text.length, at - from));
    if (here > 0) head.push({ text: text.slice(0, here), changed });
    if (here < text.length) tail.push({ text: text.slice(here), changed });
    from += text.length;
  }
  return [head, tail];
}
