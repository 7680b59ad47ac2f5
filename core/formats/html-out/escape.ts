const SIGNS: Readonly<Record<string, string>> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;', "'": '&#39;' };

/** A text made safe to stand in HTML, between tags or in a quoted attribute. */
export const safe = (text: string): string => text.replace(/[&<>"']/g, (sign) => SIGNS[sign]!);
