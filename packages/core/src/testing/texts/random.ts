/** A sequence of numbers that a seed decides, for texts that are the same on every machine. */
export class Random {
  private state: number;

  constructor(seed: number) {
    this.state = (seed * 2_654_435_761) >>> 0 || 1;
    for (let i = 0; i < 5; i++) this.next();
  }

  /** From 0 to below 1. */
  next(): number {
    this.state ^= this.state << 13;
    this.state ^= this.state >>> 17;
    this.state ^= this.state << 5;
    this.state >>>= 0;
    return this.state / 0x1_0000_0000;
  }

  below(count: number): number {
    return Math.floor(this.next() * count);
  }

  chance(share: number): boolean {
    return this.next() < share;
  }

  pick<T>(list: readonly T[]): T {
    return list[this.below(list.length)]!;
  }

  shuffled<T>(list: readonly T[]): T[] {
    const all = [...list];
    for (let i = all.length - 1; i > 0; i--) {
      const j = this.below(i + 1);
      [all[i], all[j]] = [all[j]!, all[i]!];
    }
    return all;
  }

  some<T>(list: readonly T[], least: number, most: number): T[] {
    return this.shuffled(list).slice(0, least + this.below(most - least + 1));
  }

  hex(length: number): string {
    return Array.from({ length }, () => this.below(16).toString(16)).join('');
  }
}
