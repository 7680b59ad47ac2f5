/** Milliseconds after which a page that was printed, or was not, is let go. */
const KEPT = 120_000;

/**
 * Prints a page of its own, without leaving what is on the screen.
 * @param html a whole page with its styles in it, and nothing else to be fetched
 * @param nonce what the content policy allows styles by, or null where there is none
 */
export function printPage(html: string, nonce: string | null): void {
  const frame = document.createElement('iframe');
  frame.className = 'visually-hidden';
  frame.tabIndex = -1;
  frame.setAttribute('aria-hidden', 'true');
  frame.title = 'Page to be printed';
  frame.srcdoc = nonce ? html.replace('<style>', `<style nonce="${nonce}">`) : html;
  frame.addEventListener('load', () => {
    const page = frame.contentWindow!;
    page.addEventListener('afterprint', () => setTimeout(() => frame.remove()));
    page.focus();
    page.print();
  });
  document.body.append(frame);
  setTimeout(() => frame.remove(), KEPT);
}
