/** What of a drawn thing its picture keeps: a file has no style sheet. */
const KEPT = [
  ...[
    'fill',
    'fill-opacity',
    'stroke',
    'stroke-opacity',
    'stroke-width',
    'stroke-linejoin',
    'stroke-linecap',
    'stroke-dasharray',
    'opacity',
  ],
  ...['font-family', 'font-size', 'font-weight', 'font-style', 'text-anchor'],
] as const;

const FACES: Readonly<Record<string, string>> = { 'Hanken Grotesk Variable': 'sans-serif', 'Literata Variable': 'serif' };

/**
 * A picture as a file of its own: as it is drawn, on its ground, without what only serves the pointer and the keys.
 * @param ground colour behind it @param width pixels across
 */
export function svgOf(drawn: SVGSVGElement, ground: string, width: number): string {
  const { width: across, height: down } = drawn.viewBox.baseVal;
  const copy = drawn.cloneNode(true) as SVGSVGElement;
  const [originals, copies] = [drawn.querySelectorAll('*'), copy.querySelectorAll('*')];
  const apart = copy.querySelectorAll('[data-apart]');
  originals.forEach((one, at) => {
    const to = copies[at]!;
    const style = getComputedStyle(one);
    for (const name of [...to.attributes].map((attribute) => attribute.name))
      if (/^(class|role|tabindex|aria-|_ng|style|data-|fl[A-Z])/.test(name)) to.removeAttribute(name);
    if (one instanceof SVGTitleElement) return;
    for (const name of KEPT) {
      const value = style.getPropertyValue(name);
      if (value) to.setAttribute(name, name === 'font-family' ? faces(value) : value);
    }
  });
  // what is only there to be pointed at
  for (const one of apart) one.remove();
  for (const name of [...copy.attributes].map((attribute) => attribute.name)) if (name !== 'viewBox') copy.removeAttribute(name);
  copy.setAttribute('xmlns', 'http://www.w3.org/2000/svg');
  copy.setAttribute('width', String(width));
  copy.setAttribute('height', String(Math.round((width * down) / across)));
  const behind = document.createElementNS('http://www.w3.org/2000/svg', 'rect');
  Object.entries({ x: '0', y: '0', width: String(across), height: String(down), fill: ground }).forEach(([name, value]) =>
    behind.setAttribute(name, value),
  );
  copy.prepend(behind);
  return new XMLSerializer().serializeToString(copy).replace(/<!--[\s\S]*?-->/g, '');
}

/** Faces that ship with the application are not on other machines: they end in one that is. */
function faces(value: string): string {
  const generic = Object.entries(FACES).find(([face]) => value.includes(face))?.[1];
  return generic && !value.trim().endsWith(generic) ? `${value}, ${generic}` : value;
}

/** Something drawn: in lines, or by a chart in pixels. */
export type Drawn = SVGSVGElement | HTMLCanvasElement;

/** A picture in pixels, so many across. @throws Error where the browser cannot draw it */
export async function pixelsOf(drawn: Drawn, ground: string, width: number): Promise<Blob> {
  if (drawn instanceof HTMLCanvasElement) return painted(drawn, drawn.width, drawn.height, ground, width);
  const address = URL.createObjectURL(new Blob([svgOf(drawn, ground, width)], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    return await painted(image, image.naturalWidth, image.naturalHeight, ground, width);
  } finally {
    URL.revokeObjectURL(address);
  }
}

async function painted(picture: CanvasImageSource, across: number, down: number, ground: string, width: number): Promise<Blob> {
  const canvas = document.createElement('canvas');
  canvas.width = width;
  canvas.height = Math.round((width * down) / across);
  const context = canvas.getContext('2d')!;
  context.fillStyle = ground;
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(picture, 0, 0, canvas.width, canvas.height);
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
  if (!blob) throw new Error('The picture is too large to be drawn. Take a smaller width.');
  return blob;
}
