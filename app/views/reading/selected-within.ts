/** Characters of an element's text in front of a place in it. */
function offsetIn(element: Element, node: Node, offset: number): number {
  const range = element.ownerDocument.createRange();
  range.setStart(element, 0);
  range.setEnd(node, offset);
  return range.toString().length;
}

/** The characters `[start, end)` of an element's text that are selected, or null where the selection is empty or elsewhere. */
export function selectedWithin(element: Element): { readonly start: number; readonly end: number } | null {
  const { anchorNode, anchorOffset, focusNode, focusOffset } = getSelection() ?? {};
  if (!anchorNode || !focusNode || !element.contains(anchorNode) || !element.contains(focusNode)) return null;
  const [start, end] = [offsetIn(element, anchorNode, anchorOffset!), offsetIn(element, focusNode, focusOffset!)].sort((a, b) => a - b);
  return start === end ? null : { start: start!, end: end! };
}

/** Characters of an element's text in front of the caret; 0 where the caret is elsewhere. */
export function caretWithin(element: Element): number {
  const { focusNode, focusOffset } = getSelection() ?? {};
  return focusNode && element.contains(focusNode) ? offsetIn(element, focusNode, focusOffset!) : 0;
}
