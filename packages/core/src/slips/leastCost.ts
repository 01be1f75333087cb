/** States above which pairs are taken one by one, the cheapest first: the exact way has 2^n for each of the first side. */
const MOST_STATES = 65_536;

export interface Pairing {
  /** For each of the first side its partner of the other, or undefined. */
  readonly partners: readonly (number | undefined)[];
  readonly cost: number;
}

/** The one that costs least; of equal ones the first. */
export function cheapest<T extends { readonly cost: number }>(ways: readonly T[]): T | undefined {
  return ways.reduce<T | undefined>((best, way) => (!best || way.cost < best.cost ? way : best), undefined);
}

/**
 * The pairs between two sides that cost least in all: what has no partner costs what it costs alone. Of equal ones the first found is taken.
 *
 *     leastCost(2, 1, (i) => [1, 2][i], () => 3, 1)  // { partners: [0, undefined], cost: 4 }
 *
 * @param pair what it costs that `i` of the first side is `j` of the other; undefined where it cannot be
 * @param alone what `i` costs without a partner
 * @param left what each of the other side costs without one
 */
export function leastCost(
  first: number,
  other: number,
  pair: (i: number, j: number) => number | undefined,
  alone: (i: number) => number,
  left: number,
): Pairing {
  const costs = Array.from({ length: first }, (_, i) => Array.from({ length: other }, (_unused, j) => pair(i, j)));
  return first * 2 ** other > MOST_STATES ? oneByOne(costs, alone, left, other) : exact(costs, alone, left, other);
}

/** By the set of those that are taken, a bit each; from the last of the first side to the first. */
function exact(costs: readonly (readonly (number | undefined)[])[], alone: (i: number) => number, left: number, other: number): Pairing {
  const memo = costs.map(() => new Map<number, Pairing>());
  const from = (i: number, taken: number): Pairing => {
    if (i === costs.length) return { partners: [], cost: (other - bits(taken)) * left };
    const known = memo[i]!.get(taken);
    if (known) return known;
    let best: Pairing | undefined;
    for (let j = 0; j < other; j++) {
      const own = taken & (1 << j) ? undefined : costs[i]![j];
      if (own === undefined) continue;
      const rest = from(i + 1, taken | (1 << j));
      if (!best || own + rest.cost < best.cost - 1e-9) best = { partners: [j, ...rest.partners], cost: own + rest.cost };
    }
    const rest = from(i + 1, taken);
    if (!best || alone(i) + rest.cost < best.cost - 1e-9) best = { partners: [undefined, ...rest.partners], cost: alone(i) + rest.cost };
    memo[i]!.set(taken, best);
    return best;
  };
  return from(0, 0);
}

function oneByOne(costs: readonly (readonly (number | undefined)[])[], alone: (i: number) => number, left: number, other: number): Pairing {
  const pairs = costs.flatMap((row, i) => row.flatMap((cost, j) => (cost !== undefined && cost < alone(i) + left ? [{ i, j, cost }] : [])));
  const partners: (number | undefined)[] = costs.map(() => undefined);
  const taken = new Set<number>();
  let cost = 0;
  for (const pair of pairs.sort((a, b) => a.cost - b.cost)) {
    if (partners[pair.i] !== undefined || taken.has(pair.j)) continue;
    partners[pair.i] = pair.j;
    taken.add(pair.j);
    cost += pair.cost;
  }
  partners.forEach((partner, i) => (cost += partner === undefined ? alone(i) : 0));
  return { partners, cost: cost + (other - taken.size) * left };
}

function bits(set: number): number {
  let count = 0;
  for (let rest = set; rest !== 0; rest &= rest - 1) count++;
  return count;
}
