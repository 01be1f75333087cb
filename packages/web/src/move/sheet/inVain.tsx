/** What the panel says of entries that are right: whoever types them is not to change them for it. */
export function InVain({ warnings }: { warnings: readonly string[] }) {
  if (warnings.length === 0) return null;
  return <p>To be expected there, though the entries are right: {warnings.map((one) => `“${one.replace(/^[“"]|[”"]$/g, '')}”`).join(', ')}.</p>;
}
