/** One line of what was pasted, cleaned of what does not belong to it. */
export interface Line {
  /** In the text as it was given, from 1. */
  readonly line: number;
  readonly text: string;
  /** How deep it is quoted in a mail. */
  readonly quote: number;
  /** What stood in cells of HTML, empty ones too. */
  readonly cells?: readonly string[] | undefined;
}

export const isBlank = ({ text, cells }: Line): boolean => text === '' && (cells === undefined || cells.every((cell) => cell === ''));
