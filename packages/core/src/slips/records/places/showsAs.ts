/** A name as people read it, without the marks of zone files: `\@.choir.example.` → `@.choir.example`. */
export function showsAs(name: string): string {
  return name.replace(/\.$/, '').replace(/\\(\d{3}|.)/gs, (_, what: string) => (what.length === 3 ? String.fromCharCode(Number(what)) : what));
}
