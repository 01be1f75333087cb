import { Line, isBlank } from './lines';

/** Blocks between blank lines, and where mails are quoted. */
export function blocksOf(lines: readonly Line[]): Line[][] {
  const blocks: Line[][] = [];
  let block: Line[] = [];
  for (const line of lines) {
    if (isBlank(line) || (line.text.trim() === '' && line.cells === undefined) || (block.length > 0 && block[0]!.quote !== line.quote)) {
      if (block.length > 0) blocks.push(block);
      block = [];
    }
    if (!isBlank(line) && (line.cells !== undefined || line.text.trim() !== '')) block.push(line);
  }
  if (block.length > 0) blocks.push(block);
  return blocks;
}
