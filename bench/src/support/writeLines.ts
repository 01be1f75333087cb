import { createWriteStream } from 'node:fs';
import { once } from 'node:events';

/** A large file from its pieces, a mebibyte at a time. */
export async function writeLines(path: string, pieces: Iterable<string>): Promise<void> {
  const file = createWriteStream(path);
  let text = '';
  for (const piece of pieces) {
    text += piece;
    if (text.length < 1 << 20) continue;
    if (!file.write(text)) await once(file, 'drain');
    text = '';
  }
  file.end(text);
  await once(file, 'finish');
}
