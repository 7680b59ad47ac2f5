import type { Area } from '@core/model/area';
import { mapped, type Affine } from '@core/pictures/frame';
import { pixelsInRow } from '@core/passages/pixels';

/** How wide an outline is, and what lies around it so that it shows on any picture, pixels of the screen. */
const LINE = 2;
const HALO = 4;
/** How long the pieces are in which several colours take turns. */
const PIECE = 9;

/** The outline of an area as it stands on the screen. */
export function outlineOf(area: Area, map: Affine): Path2D {
  const path = new Path2D();
  addOutline(path, area, map);
  return path;
}

/** Adds the outline of an area to others: many are drawn in one go, which costs a fraction of drawing each. */
export function addOutline(path: Path2D, area: Area, map: Affine): void {
  if (area.shape === 'ellipse') {
    const [rx, ry] = [area.width / 2, area.height / 2];
    const centre = mapped(map, { x: area.x + rx, y: area.y + ry });
    // turned by quarters only: the radii change places
    const turned = Math.abs(map.a) < Math.abs(map.c);
    const across = turned ? ry * Math.abs(map.c) : rx * Math.abs(map.a);
    const down = turned ? rx * Math.abs(map.b) : ry * Math.abs(map.d);
    path.moveTo(centre.x + across, centre.y);
    path.ellipse(centre.x, centre.y, across, down, 0, 0, 2 * Math.PI);
    return;
  }
  const corners =
    area.shape === 'polygon'
      ? area.corners
      : [
          { x: area.x, y: area.y },
          { x: area.x + area.width, y: area.y },
          { x: area.x + area.width, y: area.y + area.height },
          { x: area.x, y: area.y + area.height },
        ];
  corners.forEach((corner, at) => {
    const { x, y } = mapped(map, corner);
    if (at === 0) path.moveTo(x, y);
    else path.lineTo(x, y);
  });
  path.closePath();
}

/** Draws an outline in the colours of its codes, which take turns along it. @param halo what lies around it */
export function strokeOutline(
  context: CanvasRenderingContext2D,
  path: Path2D,
  colours: readonly string[],
  halo: string,
  strong: boolean,
): void {
  context.setLineDash([]);
  context.lineJoin = 'round';
  context.lineWidth = HALO + (strong ? 2 : 0);
  context.strokeStyle = halo;
  context.stroke(path);
  context.lineWidth = LINE + (strong ? 1 : 0);
  colours.forEach((colour, at) => {
    if (colours.length > 1) {
      context.setLineDash([PIECE, PIECE * (colours.length - 1)]);
      context.lineDashOffset = -at * PIECE;
    }
    context.strokeStyle = colour;
    context.stroke(path);
  });
  context.setLineDash([]);
}

/** Whether a point lies in an area, in whole pixels. */
export function covers(area: Area, { x, y }: { readonly x: number; readonly y: number }): boolean {
  const column = Math.floor(x);
  return pixelsInRow(area, Math.floor(y)).some(({ start, end }) => start <= column && column < end);
}
