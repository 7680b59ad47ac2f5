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
 * @throws UnreadableFileError
 */
export function walkXml(bytes: Uint8Array, visitor: XmlVisitor, what: string): void {
  let xml: string;
  try {
    xml = new TextDecoder(/^(\xff\xfe|\xfe\xff)/.test(latin1(bytes.subarray(0, 2))) ? 'utf-16' : 'utf-8', { fatal: true }).decode(bytes);
  } catch {
    throw new UnreadableFileError(`${what} is damaged: it is not written in Unicode.`);
  }
  if (/<!ENTITY/i.test(xml.slice(0, 20_000)))
    throw new UnreadableFileError(`${what} defines entities of its own, which ordinary documents do not. It is not read.`);
  const open: string[] = [];
  const parser = new Parser(
    {
      onopentag(name, attributes) {
        if (open.push(name) > DEEPEST) throw new UnreadableFileError(`${what} is nested deeper than any real document.`);
        visitor.open?.(name, attributes);
      },
      ontext: (text) => visitor.text?.(text),
      onclosetag(name) {
        open.pop();
        visitor.close?.(name);
      },
    },
    { xmlMode: true, decodeEntities: true },
  );
  parser.write(xml);
  parser.end();
}

const latin1 = (bytes: Uint8Array): string => String.fromCharCode(...bytes);
