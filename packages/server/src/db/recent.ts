/** What was read last and does not change, up to a weight in all; what was not asked for longest goes first. */
export class Recent<V> {
  private readonly held = new Map<string, { readonly value: V; readonly weight: number }>();
  private weight = 0;

  constructor(private readonly most: number) {}

  get(key: string): V | undefined {
    const found = this.held.get(key);
    if (!found) return undefined;
    this.held.delete(key);
    this.held.set(key, found);
    return found.value;
  }

  set(key: string, value: V, weight: number): void {
    this.drop(key);
    if (weight > this.most) return;
    this.held.set(key, { value, weight });
    this.weight += weight;
    for (const oldest of this.held.keys()) {
      if (this.weight <= this.most) return;
      this.drop(oldest);
    }
  }

  private drop(key: string): void {
    this.weight -= this.held.get(key)?.weight ?? 0;
    this.held.delete(key);
  }
}
