import type { Name } from './name';

/** Names of a message by where they begin, so that a pointer to one is that name; a few of the last read. Used again for every message. */
export class NamesRead {
  /** The round and the offset that a place is taken for. */
  private readonly taken = new Int32Array(64).fill(-1);
  private readonly names: (Name | undefined)[] = new Array<Name | undefined>(64).fill(undefined);
  private round = 0;

  begin(): void {
    this.round = (this.round + 1) & 0x1ffff;
    if (this.round === 0) this.taken.fill(-1);
  }

  get(offset: number): Name | undefined {
    return this.taken[offset & 63] === (this.round << 14) + offset ? this.names[offset & 63] : undefined;
  }

  set(offset: number, name: Name): void {
    this.taken[offset & 63] = (this.round << 14) + offset;
    this.names[offset & 63] = name;
  }
}
