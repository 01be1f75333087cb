import { readHtml, readPage } from './html';

describe('HTML', () => {
  it('is taken apart as it stands', () => {
    const parts: string[] = [];
    readHtml('<TD class="a>b">x &amp; <b>y</b><!-- no --><script>if (a < b) "<td>"</script>z&eacute;', {
      open: (tag) => parts.push(`<${tag}`),
      close: (tag) => parts.push(`/${tag}`),
      text: (piece) => parts.push(piece),
    });
    expect(parts.join('|')).toBe('<td|x |&| |<b|y|/b|<script|/script|z|é');
  });

  it('gives what a visitor reads, and the first title', () => {
    expect(readPage('<title>The\n reed &lt;bank&gt;</title><style>p{}</style><svg><title>no</title></svg><p>Open<br>daily</p>')).toEqual({
      title: 'The reed <bank>',
      text: 'The reed <bank> no Open daily',
    });
    expect(readPage('nothing marked up')).toEqual({ title: undefined, text: 'nothing marked up' });
  });

  // Looking from each bracket for its end would not come to an end here: these are a thousand million steps and more.
  it.each(['<', '<p', '<p ', '<p a="', '<!--', '<script ', '<script>', '<title', '<b>', '<b></x>', '&', '&#', '</'])(
    'of nothing but %s is read as fast as any',
    (unit) => {
      const { text } = readPage(unit.repeat(200_000));
      expect(text.length).toBeLessThanOrEqual(unit.length * 200_000);
    },
  );
});
