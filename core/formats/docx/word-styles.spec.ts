import { strToU8 } from 'fflate';
import { readWordStyles } from './word-styles';

describe('styles of a Word document', () => {
  const style = (id: string, type: string, inner: string): string => `<w:style w:type="${type}" w:styleId="${id}">${inner}</w:style>`;
  const read = (...styles: string[]) =>
    Object.fromEntries(
      [...readWordStyles(strToU8(`<w:styles xmlns:w="w">${styles.join('')}</w:styles>`))].map(([id, { looks, level }]) => [
        id,
        [[...looks].join(' '), level],
      ]),
    );

  it('have their looks and levels, also from those they are based on', () => {
    expect(
      read(
        style('H2', 'paragraph', '<w:name w:val="heading 2"/><w:rPr><w:b/></w:rPr>'),
        style('Frage', 'paragraph', '<w:name w:val="Frage"/><w:basedOn w:val="H2"/><w:rPr><w:i w:val="1"/></w:rPr>'),
        style('Leise', 'paragraph', '<w:basedOn w:val="Frage"/><w:pPr><w:outlineLvl w:val="9"/></w:pPr><w:rPr><w:b w:val="0"/></w:rPr>'),
        style('Part', 'paragraph', '<w:pPr><w:outlineLvl w:val="0"/></w:pPr><w:rPr><w:u w:val="none"/></w:rPr>'),
        style('H2', 'character', '<w:rPr><w:u w:val="single"/><w:strike/></w:rPr>'),
      ),
    ).toEqual({
      'paragraph H2': ['bold', 2],
      'paragraph Frage': ['italic bold', 2],
      'paragraph Leise': ['italic', null],
      'paragraph Part': ['', 1],
      'character H2': ['underline strike', null],
    });
  });

  it('that are based on themselves, or on what is not there, end', () => {
    expect(
      read(
        style('a', 'paragraph', '<w:basedOn w:val="b"/><w:rPr><w:b/></w:rPr>'),
        style('b', 'paragraph', '<w:basedOn w:val="a"/>'),
        style('c', 'paragraph', '<w:basedOn w:val="gone"/>'),
      ),
    ).toEqual({ 'paragraph a': ['bold', null], 'paragraph b': ['bold', null], 'paragraph c': ['', null] });
  });
});
