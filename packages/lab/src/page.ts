/** Text as it may stand in HTML. */
export function escapeHtml(text: string): string {
  return text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);
}

/** A plain page of one of the lab's companies: they look like the web, not like Wanderon. */
export function page(title: string, company: string, body: string): string {
  return `<!doctype html><html lang="en"><meta charset="utf-8"><title>${escapeHtml(title)}</title>
<style>body{font:16px/1.5 sans-serif;max-width:44rem;margin:2rem auto;padding:0 1rem;color:#222}header{border-bottom:4px solid #4a6a8a;margin-bottom:1.5rem}
header b{font-size:1.3rem}input[type=text]{width:24rem;padding:.4rem;font:inherit;margin:.2rem 0}button{padding:.5rem 1rem;font:inherit}table{border-collapse:collapse;width:100%}
td,th{text-align:left;padding:.4rem;border-bottom:1px solid #ccc;vertical-align:top}.bad{color:#a01818}.good{color:#1a5a2a}</style>
<header><b>${escapeHtml(company)}</b> <small>a stand-in, part of the lab</small></header><h1>${escapeHtml(title)}</h1>${body}</html>`;
}
