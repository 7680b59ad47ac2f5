import { provideZonelessChangeDetection } from '@angular/core';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { boxOf, rowsOf, type Area } from '@core/model/area';
import type { Passage } from '@core/model/passage';
import type { Place } from '@core/model/stretch';
import { PictureSurface } from './picture-surface';
import type { Picture } from './picture-here';

const GROUND: Picture['ground'] = {
  of: 'picture',
  width: 400,
  height: 300,
  media: { sha256: '0'.repeat(64), bytes: 1, type: 'image/png' },
};
const passage = (id: string, area: Area): Passage => ({
  id,
  documentId: 'd',
  ...rowsOf(area),
  area,
  comment: '',
  coderId: 'c',
  createdAt: 0,
  codings: [],
});

describe('A picture on the screen', () => {
  let fixture: ComponentFixture<PictureSurface>;
  let marked: Place | null;
  let chosen: string | null;
  let moved: { readonly passageId: string; readonly place: Place }[];
  let asked: string[];
  const host = (): HTMLElement => fixture.nativeElement as HTMLElement;
  const settle = async (): Promise<void> => {
    await fixture.whenStable();
    await new Promise((resolve) => requestAnimationFrame(() => setTimeout(resolve)));
  };
  /** The pointer goes over pixels of the picture, which is shown at twice its size. */
  const drag = async (...points: readonly (readonly [number, number])[]): Promise<void> => {
    const canvas = host().querySelector('canvas')!;
    canvas.setPointerCapture = () => undefined;
    const box = host().getBoundingClientRect();
    const map = fixture.componentInstance.view.map();
    points.forEach(([x, y], at) => {
      const init = { clientX: box.left + map.a * x + map.e, clientY: box.top + map.d * y + map.f, button: 0, bubbles: true, pointerId: 1 };
      canvas.dispatchEvent(new PointerEvent(at === 0 ? 'pointerdown' : 'pointermove', init));
      if (at === points.length - 1) canvas.dispatchEvent(new PointerEvent('pointerup', init));
    });
    await settle();
  };
  const press = async (key: string, init: KeyboardEventInit = {}): Promise<void> => {
    host().dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init }));
    await settle();
  };

  beforeEach(async () => {
    TestBed.configureTestingModule({ providers: [provideZonelessChangeDetection()] });
    fixture = TestBed.createComponent(PictureSurface);
    host().style.cssText = 'width:824px;height:624px';
    const inner: Area = { shape: 'rectangle', x: 100, y: 100, width: 40, height: 40 };
    const outer: Area = { shape: 'ellipse', x: 60, y: 60, width: 160, height: 120 };
    for (const [name, value] of Object.entries({ ground: GROUND, passages: [passage('outer', outer), passage('inner', inner)], codes: {} }))
      fixture.componentRef.setInput(name, value);
    [marked, chosen, moved, asked] = [null, null, [], []];
    fixture.componentInstance.marking.subscribe((place) => fixture.componentRef.setInput('marked', (marked = place)));
    fixture.componentInstance.chosen.subscribe((id) => fixture.componentRef.setInput('chosenId', (chosen = id)));
    fixture.componentInstance.moved.subscribe((one) => moved.push(one));
    fixture.componentInstance.asked.subscribe((command) => asked.push(command));
    document.body.appendChild(host());
    await settle();
    await settle();
  });

  it('is shown whole, as large as there is room', () => {
    expect(fixture.componentInstance.view.scale()).toBe(2);
  });

  it('marks what a drag goes over, in its own pixels, in each of the shapes', async () => {
    await drag([250, 200], [280, 220], [300, 240]);
    expect(marked?.area).toEqual({ shape: 'rectangle', x: 250, y: 200, width: 50, height: 40 });
    fixture.componentRef.setInput('shape', 'ellipse');
    await press('Escape');
    await drag([20, 250], [10, 260], [60, 290]);
    expect(marked?.area).toEqual({ shape: 'ellipse', x: 20, y: 250, width: 40, height: 40 });
    fixture.componentRef.setInput('shape', 'outline');
    await press('Escape');
    await drag([300, 20], [340, 20], [340, 60], [300, 60]);
    expect(marked?.area?.shape).toBe('polygon');
    expect(boxOf(marked!.area!)).toEqual({ left: 300, top: 20, right: 340, bottom: 60 });
  });

  it('chooses the smallest area under a click, then the one around it, then none beside them', async () => {
    await drag([120, 120]);
    expect(chosen).toBe('inner');
    await drag([120, 120]);
    expect(chosen).toBe('outer');
    await drag([390, 10]);
    expect(chosen).toBeNull();
  });

  it('moves the chosen area by its outline, reshapes it by a handle, and stays in the picture', async () => {
    await drag([120, 120]);
    await drag([110, 100], [130, 110], [150, 130]);
    expect(moved.at(-1)?.place.area).toEqual({ shape: 'rectangle', x: 140, y: 130, width: 40, height: 40 });
    await drag([140, 140], [170, 150], [200, 190]);
    expect(moved.at(-1)?.place.area).toEqual({ shape: 'rectangle', x: 100, y: 100, width: 100, height: 90 });
    await drag([110, 100], [300, 300], [900, 900]);
    expect(boxOf(moved.at(-1)!.place.area!)).toEqual({ left: 360, top: 260, right: 400, bottom: 300 });
  });

  it('is worked by keys alone: an area in the middle, moved, reshaped, coded', async () => {
    await press('i');
    const before = boxOf(marked!.area!);
    await press('ArrowRight', { shiftKey: true });
    await press('ArrowDown', { altKey: true });
    const after = boxOf(marked!.area!);
    expect([after.left - before.left, after.bottom - before.bottom]).toEqual([10, 1]);
    await press('c');
    await press('Delete');
    expect(asked).toEqual(['code', 'remove']);
    await press('Escape');
    expect(marked).toBeNull();
  });

  it('is made larger around the pointer and moved, and comes back whole', async () => {
    const { view } = fixture.componentInstance;
    const at = { x: 212, y: 212 };
    const under = view.toPicture(at);
    view.zoom(2, at);
    expect(Math.hypot(view.toPicture(at).x - under.x, view.toPicture(at).y - under.y)).toBeLessThan(1);
    await press('ArrowRight');
    expect(view.toPicture(at).x).toBeGreaterThan(under.x);
    await press('0');
    expect(view.scale()).toBe(2);
  });

  it('draws and takes hold of things where they are seen, however the picture is turned', async () => {
    fixture.componentRef.setInput('ground', { ...GROUND, shown: { turned: 1, mirrored: true } });
    await settle();
    const { view } = fixture.componentInstance;
    const seen = view.map();
    const point = { x: seen.a * 120 + seen.c * 120 + seen.e, y: seen.b * 120 + seen.d * 120 + seen.f };
    const back = view.toPicture(point);
    expect([Math.round(back.x), Math.round(back.y)]).toEqual([120, 120]);
    const canvas = host().querySelector('canvas')!;
    canvas.setPointerCapture = () => undefined;
    const box = host().getBoundingClientRect();
    const init = { clientX: box.left + point.x, clientY: box.top + point.y, button: 0, bubbles: true, pointerId: 1 };
    canvas.dispatchEvent(new PointerEvent('pointerdown', init));
    canvas.dispatchEvent(new PointerEvent('pointerup', init));
    await settle();
    expect(chosen).toBe('inner');
  });
});
