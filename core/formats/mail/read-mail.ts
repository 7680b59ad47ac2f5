import PostalMime from 'postal-mime';
import { normaliseText, tidyLine } from '../../text/normalise';
import type { DraftParagraph } from '../../text/draft-text';
import { readHtml } from '../html/read-html';
import { UnreadableFileError, type Fact, type Reading } from '../reading';

/**
 * Reads an e-mail message (RFC 5322 with MIME, `.eml`): its words; who wrote to whom and when are facts.
 * Quoted lines (`>`) become quotations; attachments are named, not read.
 * @throws UnreadableFileError
 */
export async function readMail(bytes: Uint8Array): Promise<Reading> {
  const mail = await PostalMime.parse(bytes, { maxNestingDepth: 50 }).catch(() => {
    throw new UnreadableFileError('This is not an e-mail message, or it is damaged. Save it again in your mail program, as .eml.');
  });
  if (!mail.from && !mail.subject && !mail.date)
    throw new UnreadableFileError(
      'This is not an e-mail message: it names neither sender, subject nor date. Save it again in your mail program, as .eml.',
    );
  const people = (some: readonly { name?: string; address?: string }[] | undefined): string =>
    (some ?? []).map(({ name, address }) => (name && address ? `${name} <${address}>` : name || address || '')).join(', ');
  const facts = [
    { name: 'from', value: people(mail.from ? [mail.from] : []) },
    { name: 'to', value: people(mail.to) },
    { name: 'copy to', value: people(mail.cc) },
    { name: 'sent', value: sent(mail.date) },
  ].map(({ name, value }): Fact => ({ name, value: tidyLine(value) }));
  const body = mail.text?.trim() ? fromText(mail.text) : readHtml(mail.html ?? '').paragraphs;
  if (body.length === 0) throw new UnreadableFileError('The message holds no text.');
  const attachments = mail.attachments
    .filter((one) => one.disposition !== 'inline' || one.filename)
    .map((one) => one.filename ?? 'unnamed');
  const day = mail.date ? new Date(mail.date) : null;
  return {
    title: tidyLine(mail.subject ?? '') || null,
    ...(day && !Number.isNaN(day.getTime()) ? { date: day.toISOString().slice(0, 10) } : {}),
    paragraphs: body,
    facts: facts.filter(({ value }) => value),
    notes: attachments.length > 0 ? [`attachments not read: ${attachments.join(', ').slice(0, 200)}`] : [],
  };
}

/** When a message was sent, as `YYYY-MM-DD HH:MM UTC`, where it is written in a way that the library can read. */
function sent(date: string | undefined): string {
  const written = /^(\d{4}-\d{2}-\d{2})T(\d{2}:\d{2})/.exec(date ?? '');
  return written ? `${written[1]} ${written[2]} UTC` : (date ?? '');
}

/** Blocks between blank lines; lines that begin with `>` make quotations. */
function fromText(raw: string): DraftParagraph[] {
  const paragraphs: { text: string; style: DraftParagraph['style']; open: boolean }[] = [];
  for (const line of normaliseText(raw).split('\n')) {
    const quoted = /^(>\s?)+/.exec(line);
    const text = line.slice(quoted?.[0].length ?? 0).trim();
    const style = quoted ? 'quotation' : 'body';
    const last = paragraphs.at(-1);
    if (!text) {
      if (last) last.open = false;
    } else if (last?.open && last.style === style) last.text += ` ${text}`;
    else paragraphs.push({ text, style, open: true });
  }
  return paragraphs.map(({ text, style }) => ({ text, style, emphasis: [] }));
}
