import { added } from '../change/change';
import type { Command } from '../change/command';
import type { Document } from '../model/document';
import { codePlace, type Coded } from './passages';

/**
 * Codes an area of a page of a PDF. A page becomes a document, which belongs to the text of the PDF, with the first area
 * that is coded of it: in the same step.
 * @param page the document that the page is, or becomes
 */
export function codePage(page: Document, coded: Omit<Coded, 'documentId'>): Command {
  return (state, context) => {
    const command = codePlace({ ...coded, documentId: page.id });
    if (Object.hasOwn(state.tables.document, page.id)) return command(state, context);
    const documents = { ...state.tables.document, [page.id]: page };
    const action = command({ ...state, tables: { ...state.tables, document: documents } }, context);
    return action && { ...action, change: [added('document', { ...page, createdAt: context.now }), ...action.change] };
  };
}
