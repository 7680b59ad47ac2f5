import { pixelsOf, svgOf } from './picture-out';

describe('a picture that is taken out', () => {
  let drawn: SVGSVGElement;

  beforeEach(() => {
    const host = document.createElement('div');
    host.innerHTML = `
      <style>.mark { fill: rgb(200, 0, 0); font: 700 11px serif; }</style>
      <svg class="x" viewBox="0 0 200 100" role="group" data-picture>
        <!-- a mark -->
        <g role="button" tabindex="0" aria-label="Grief"><title>Grief</title><text class="mark" x="20" y="40">&lt;Grief &amp; “Worry”</text></g>
        <rect class="mark" x="100" y="0" width="100" height="100"></rect>
      </svg>`;
    document.body.append(host);
    drawn = host.querySelector('svg')!;
  });
  afterEach(() => drawn.parentElement!.remove());

  it('looks as it was drawn without a style sheet, on its ground, and holds nothing of the page', () => {
    const svg = svgOf(drawn, '#ffffff', 800);
    const read = new DOMParser().parseFromString(svg, 'image/svg+xml');
    expect(read.querySelector('parsererror')).toBeNull();
    const [root, text] = [read.documentElement, read.querySelector('text')!];
    expect([root.getAttribute('width'), root.getAttribute('height')]).toEqual(['800', '400']);
    expect(read.querySelector('rect')!.getAttribute('fill')).toBe('#ffffff');
    expect([text.getAttribute('fill'), text.getAttribute('font-weight')]).toEqual(['rgb(200, 0, 0)', '700']);
    expect(text.textContent).toBe('<Grief & “Worry”');
    expect(svg).not.toMatch(/class=|tabindex|aria-|role=|<!--|data-picture/);
  });

  it('comes in pixels as wide as it was asked for, with its colours', async () => {
    const image = await createImageBitmap(await pixelsOf(drawn, '#00ff00', 300));
    expect([image.width, image.height]).toEqual([300, 150]);
    const canvas = new OffscreenCanvas(300, 150);
    const context = canvas.getContext('2d')!;
    context.drawImage(image, 0, 0);
    expect([...context.getImageData(250, 75, 1, 1).data.slice(0, 3)]).toEqual([200, 0, 0]);
    expect([...context.getImageData(100, 140, 1, 1).data.slice(0, 3)]).toEqual([0, 255, 0]);
  });
});
