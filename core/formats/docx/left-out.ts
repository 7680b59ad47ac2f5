import { strFromU8 } from 'fflate';
import { counted } from '../../text/counted';

/**
 * What of a Word document is no part of its text, in words for the researcher.
 * @param parts by their names
 * @param document the XML of its words
 */
export function leftOutOfWord(parts: ReadonlyMap<string, Uint8Array>, document: string): string[] {
  const xml = (name: string): string => strFromU8(parts.get(name) ?? new Uint8Array());
  const times = (text: string, what: RegExp): number => text.match(what)?.length ?? 0;
  const comments = times(xml('word/comments.xml'), /<w:comment[ >]/g);
  const deletions = times(document, /<w:(?:del|moveFrom) [^<>]*[^/<>]>/g);
  const insertions = times(document, /<w:(?:ins|moveTo) [^<>]*[^/<>]>/g);
  const equations = times(document, /<m:oMath[ >]/g);
  const charts = times(document, /<(?:c:chart|dgm:relIds) /g);
  const edges = [...parts.keys()].filter((name) => /^word\/(?:header|footer)\d*\.xml$/.test(name) && /<w:t[ >]/.test(xml(name))).length;
  return [
    ...(comments > 0 ? [`${counted(comments, 'comment')} left out`] : []),
    ...(deletions > 0 ? [`${counted(deletions, 'tracked deletion')} left out`] : []),
    ...(insertions > 0 ? [`${counted(insertions, 'tracked insertion is', 'tracked insertions are')} part of the text`] : []),
    ...(equations > 0 ? [`${counted(equations, 'equation')} left out`] : []),
    ...(charts > 0 ? [`${counted(charts, 'chart or diagram', 'charts or diagrams')} left out`] : []),
    ...(edges > 0 ? ['headers and footers left out'] : []),
  ];
}
