import { Name } from './name';

/** A map by domain name, without regard to ASCII case; keeps the order in which names came. Millions of names are fine. */
export class NameMap<V> {
  private slots: Int32Array;
  private readonly keys: Name[] = [];
  private readonly items: V[] = [];

  /** `expected`: about how many names will come, where that is known. */
  constructor(expected = 32) {
    this.slots = new Int32Array(2 ** Math.ceil(Math.log2(Math.max(expected, 32) * 2))).fill(-1);
  }

  get size(): number {
    return this.keys.length;
  }

  get(name: Name): V | undefined {
    const index = this.slots[this.slotOf(name)]!;
    return index < 0 ? undefined : this.items[index];
  }

  has(name: Name): boolean {
    return this.slots[this.slotOf(name)]! >= 0;
  }

  set(name: Name, value: V): this {
    const slot = this.slotOf(name);
    const index = this.slots[slot]!;
    if (index >= 0) this.items[index] = value;
    else this.add(slot, name, value);
    return this;
  }

  /** The value of a name, made on the spot where there is none; making it may add other names. */
  getOr(name: Name, make: (name: Name) => V): V {
    const index = this.slots[this.slotOf(name)]!;
    if (index >= 0) return this.items[index]!;
    const value = make(name);
    this.set(name, value);
    return value;
  }

  private add(slot: number, name: Name, value: V): void {
    this.slots[slot] = this.keys.length;
    this.keys.push(name);
    this.items.push(value);
    if (this.keys.length * 2 > this.slots.length) this.grow();
  }

  names(): readonly Name[] {
    return this.keys;
  }

  values(): readonly V[] {
    return this.items;
  }

  private slotOf(name: Name): number {
    const mask = this.slots.length - 1;
    for (let slot = name.hash & mask; ; slot = (slot + 1) & mask) {
      const index = this.slots[slot]!;
      if (index < 0 || this.keys[index]!.equals(name)) return slot;
    }
  }

  private grow(): void {
    const slots = new Int32Array(this.slots.length * 4).fill(-1);
    const mask = slots.length - 1;
    for (let index = 0; index < this.keys.length; index++) {
      let slot = this.keys[index]!.hash & mask;
      while (slots[slot]! >= 0) slot = (slot + 1) & mask;
      slots[slot] = index;
    }
    this.slots = slots;
  }
}
