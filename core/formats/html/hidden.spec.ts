import { readHtml } from './read-html';

describe('what a web page hides', () => {
  const read = (html: string) => {
    const { paragraphs, notes } = readHtml(html);
    return [paragraphs.map((one) => one.text).join(' | '), notes.join(' | ')];
  };

  it('is not read: by attribute, by style, as a dialog that is closed', () => {
    expect(
      read(
        '<p>One <span style="display: none">secret</span>two</p><div hidden><p>three</p><p>four</p></div><p style="visibility:hidden">five</p><dialog>six</dialog><dialog open>seven</dialog><p>eight</p>',
      ),
    ).toEqual(['One two | seven | eight', '4 parts that the page hides left out']);
  });

  it('is not read where its own style sheet hides it by a class or a name', () => {
    const sheet =
      '<style>.menu, #ad{ display:none } p.body .x{display:none} .shown{display:block} @media print { .words { display:none } }</style>';
    expect(
      read(`<head>${sheet}</head><p class="a menu">menu</p><p id="ad">ad</p><p class="x">x</p><p class="words shown">words</p>`),
    ).toEqual(['x | words', '2 parts that the page hides left out']);
  });

  it('ends with the element, also where it is not closed in its order', () => {
    expect(read('<div><p hidden>a<div>b</div></div><p>c</p>')[0]).toBe('b | c');
    expect(read('<section hidden><div><b>a</section><p>b</p>')[0]).toBe('b');
    expect(read('<p hidden></p><p>a</p>')).toEqual(['a', '']);
  });

  it('divides nothing that is seen', () => {
    const hidden = '<span style="display:none">x<br>y<div>z</div></span><div hidden>w</div>';
    expect(read(`<div>They held ${hidden}her.</div>`)[0]).toBe('They held her.');
    expect(read(`<div>They held <section hidden><img src="a.png"><p>x</p></section>her.</div>`)).toEqual([
      'They held her.',
      '1 part that the page hides left out',
    ]);
  });
});
