/** A tide curve along the foot of the page. */
export function TideDrawing() {
  const wave = (amplitude: number, length: number, shift: number, base: number): string => {
    let path = `M0 ${base}`;
    for (let x = 0; x <= 1280; x += 8) path += ` L${x} ${(base - amplitude * Math.sin((x + shift) / length) * (0.6 + 0.4 * Math.cos(x / 420))).toFixed(1)}`;
    return path;
  };
  return (
    <svg viewBox="0 0 1280 150" preserveAspectRatio="none" className="block h-[20vh] w-full" aria-hidden="true">
      {Array.from({ length: 27 }, (_, i) => (
        <line key={i} x1={i * 48 + 16} x2={i * 48 + 16} y1={i % 4 === 0 ? 128 : 136} y2="144" stroke="var(--faded)" strokeWidth="1" />
      ))}
      <line x1="0" x2="1280" y1="144" y2="144" stroke="var(--ink)" />
      <path d={wave(34, 92, 0, 76)} fill="none" stroke="var(--accent)" strokeWidth="2.2" />
      <path d={wave(22, 92, 60, 84)} fill="none" stroke="var(--faded)" strokeWidth="1" strokeDasharray="3 4" />
    </svg>
  );
}
