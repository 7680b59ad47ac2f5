/** A token of the design as an element has it. */
export type Token = (name: string) => string;

/** Reads the design's tokens where a chart stands. @param style of an element in its place */
export const tokensOf =
  (style: CSSStyleDeclaration): Token =>
  (name) =>
    style.getPropertyValue(name).trim();

/** The type of words in a chart. */
export const chartFont = (token: Token): { family: string; size: number } => ({ family: token('--face-ui'), size: 11 });

/** How the words look that come up over a chart. */
export const tooltipLook = (token: Token) => ({
  displayColors: false,
  backgroundColor: token('--ink'),
  titleColor: token('--surface'),
  bodyColor: token('--surface'),
  titleFont: chartFont(token),
  bodyFont: chartFont(token),
});

/** As finely as a chart is drawn whose picture can be taken out larger than it is shown. */
export const FINE = 3;
