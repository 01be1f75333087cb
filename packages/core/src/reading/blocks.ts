import { Line, isBlank } from './lines';
import { labelOf } from './labels';
import { aboutOf } from './about';
import { titleType } from './titles';
import { typeWord } from './typeWord';

/** Blocks between blank lines, and where mails are quoted. */
export function blocksOf(lines: readonly Line[]): Line[][] {
  const blocks: Line[][] = [];
  let block: Line[] = [];
  for (const [at, line] of lines.entries()) {
    // A type above lines that are set in is the title of a block of its own.
    const isTitle = /^\S/.test(line.text) && /^\s+\S/.test(lines[at + 1]?.text ?? '') && titleType(line.text) !== undefined;
    if (block.length > 0 && (isTitle || isHeading(line) || isAboutBelow(line, lines[at + 1]))) {
      blocks.push(block);
      block = [];
    }
    if (isBlank(line) || (line.text.trim() === '' && line.cells === undefined) || (block.length > 0 && block[0]!.quote !== line.quote)) {
      if (block.length > 0) blocks.push(block);
      block = [];
    }
    if (!isBlank(line) && (line.cells !== undefined || line.text.trim() !== '')) block.push(line);
  }
  if (block.length > 0) blocks.push(block);
  return blocks;
}

/** "New:" above a record is no label of one value, and says what stands below it. */
function isAboutBelow({ text, cells }: Line, below: Line | undefined): boolean {
  if (cells !== undefined || !/^\s*[^:]{2,40}:\s*$/.test(text) || below === undefined) return false;
  const about = aboutOf(text);
  const words = below.text.trim().split(/\s+/);
  return (about === 'old' || about === 'new') && words.length > 2 && words.slice(0, 4).some((word) => /^[A-Z]{1,6}$/.test(word) && typeWord(word) === word);
}

/** Words of a heading. */
const MOST_WORDS = 9;

/** A line that ends with a colon and is no label of a field: what stands below it is another thing than what stands above. */
function isHeading({ text, cells }: Line): boolean {
  const bare = text.trim();
  return cells === undefined && bare.endsWith(':') && labelOf(bare) === undefined && bare.split(/\s+/).length <= MOST_WORDS && !/[=|;\t"{]/.test(bare);
}
