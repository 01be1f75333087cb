import { Piece } from '@wanderon/core';

/** Record data with the changed characters marked. */
export function RecordText({ pieces }: { pieces: readonly Piece[] }) {
  return (
    <span className="mono break-all">
      {pieces.map((piece, index) =>
        piece.changed ? (
          <mark key={index} className="changed text-ink">
            {piece.text}
          </mark>
        ) : (
          <span key={index}>{piece.text}</span>
        ),
      )}
    </span>
  );
}
