/** Seconds in words: `3 h 20 min`, `45 s`, `2 d 4 h`, the two largest units. */
export function duration(seconds: number): string {
  const total = Math.round(Math.abs(seconds));
  if (total < 60) return `${total} s`;
  const units: [number, string][] = [
    [86_400, 'd'],
    [3600, 'h'],
    [60, 'min'],
  ];
  const first = units.findIndex(([size]) => total >= size);
  const [size, name] = units[first]!;
  const whole = Math.floor(total / size);
  const next = units[first + 1];
  const rest = next ? Math.floor((total % size) / next[0]) : 0;
  return next && rest > 0 ? `${whole} ${name} ${rest} ${next[1]}` : `${whole} ${name}`;
}
