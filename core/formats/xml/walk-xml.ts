import { Parser } from 'htmlparser2';
import { UnreadableFileError } from '../reading';

/** What is called while a document is walked through, in its order. */
export interface XmlVisitor {
  open?(name: string, attributes: Readonly<Record<string, string>>): void;
  text?(text: string): void;
  close?(name: string): void;
}

/** Deeper nesting than any office document has. */
const DEEPEST = 1_000;

/**
 * Walks through XML. Only the five entities of XML and numeric ones are known: a document type with entities of
 * its own, external ones among them, is refused, and nothing is ever fetched.
 * @param what names the part in messages
 * @param strict also refuses what is not well-formed; office programs are forgiven
 * @throws UnreadableFileError
 */
export function walkXml(bytes: Uint8Array, visitor: XmlVisitor, what: string, strict = false): void {
  let xml: string;
  try {
    xml = new TextDecoder(/^(\xff\xfe|\xfe\xff)/.test(latin1(bytes.subarray(0, 2))) ? 'utf-16' : 'utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new UnreadableFileError(`${what} is damaged: it is not written in Unicode.`);
  }
  if (/<!ENTITY/i.test(xml.slice(0, 20_000)))
    throw new UnreadableFileError(`${what} defines entities of its own, which ordinary documents do not. It is not read.`);
  const open: string[] = [];
  let closed = 0;
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (open.push(name) > DEEPEST) throw new UnreadableFileError(`${what} is nested deeper than any real document.`);
        visitor.open?.(name, attributes);
      },
      ontext: (text) => visitor.text?.(text),
      onclosetag(name, implied) {
        open.pop();
        // a self-closing element is implied to close as well, but there is no end of it that could be missing
        if (implied && strict && !selfClosed(xml, parser.endIndex))
          throw new UnreadableFileError(`${what} is broken: <${name}> is opened and not closed where it should be.`);
        if (!implied) closed++;
        visitor.close?.(name);
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.write(xml);
  parser.end();
  const ends = xml.replace(/<!--[\s\S]*?-->|<!\[CDATA\[[\s\S]*?\]\]>/g, '').match(/<\/[^>]*>/g)?.length ?? 0;
  if (strict && ends !== closed) throw new UnreadableFileError(`${what} is broken: it closes what was not opened.`);
}

const selfClosed = (xml: string, end: number): boolean => xml[end] === '>' && xml[end - 1] === '/';

const latin1 = (bytes: Uint8Array): string => String.fromCharCode(...bytes);
