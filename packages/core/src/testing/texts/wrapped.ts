import { Random } from './random';

/** A text as a mail program breaks it: at blanks, or in the middle of a word. */
export function wrapped(text: string, seed: number): string {
  const random = new Random(seed + 5);
  const width = 36 + random.below(40);
  const isHard = random.chance(0.5);
  return text
    .split(/\r?\n/)
    .flatMap((line) => {
      const parts: string[] = [];
      let rest = line;
      while (rest.length > width) {
        const blank = rest.lastIndexOf(' ', width);
        const at = isHard || blank <= 0 ? width : blank;
        parts.push(rest.slice(0, at));
        rest = isHard ? rest.slice(at) : rest.slice(at).trimStart();
      }
      return [...parts, rest];
    })
    .join('\n');
}
