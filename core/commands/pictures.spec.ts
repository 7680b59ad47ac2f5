import { invert } from '../change/change';
import { checkStudy } from '../integrity/check-study';
import { rowsOf, type Area } from '../model/area';
import type { Document } from '../model/document';
import { unpackPassages } from '../passages/columns';
import { coveredOf, shareCovered } from '../passages/covered';
import { Bench } from '../testing/make';
import { codePlace } from './passages';
import { resizePicture, showPicture } from './pictures';

describe('A picture', () => {
  let bench: Bench;
  let id: string;
  const picture = (): Document & { ground: { of: 'picture' } } =>
    bench.state.tables.document[id] as Document & { ground: { of: 'picture' } };
  const areas = () => unpackPassages(bench.state.passages[id]!).map((passage) => passage.area!);
  const media = { sha256: 'a'.repeat(64), bytes: 9, type: 'image/png' };

  beforeEach(() => {
    bench = new Bench();
    id = bench.draw('Plan', 400, 300).id;
    const drawn: Area[] = [
      { shape: 'rectangle', x: 100, y: 60, width: 40, height: 30 },
      {
        shape: 'polygon',
        corners: [
          { x: 0, y: 0 },
          { x: 3, y: 0 },
          { x: 0, y: 3 },
        ],
      },
    ];
    for (const area of drawn)
      bench.do(codePlace({ documentId: id, place: { ...rowsOf(area), area }, codeIds: [bench.addCode(`Code ${area.shape}`)] }));
  });

  afterEach(() => expect(checkStudy(bench.state, bench.texts)).toEqual([]));

  it('is turned, mirrored and cut without moving what is coded of it, and all of it is undone', () => {
    const before = areas();
    const first = bench.state;
    const done = [
      bench.do(showPicture(id, 'turn'))!,
      bench.do(showPicture(id, 'mirror'))!,
      bench.do(showPicture(id, { crop: { left: 90, top: 50, right: 200, bottom: 150 } }))!,
    ];
    expect(picture().ground.shown).toEqual({ crop: { left: 90, top: 50, right: 200, bottom: 150 }, mirrored: true, turned: 3 });
    expect(areas()).toEqual(before);
    for (const action of done.reverse()) bench.do(() => ({ change: invert(action.change), sentence: 'undid' }));
    expect(bench.state).toEqual(first);
    expect(bench.do(showPicture(id, 'whole'))).toBeNull();
  });

  it('counts what is coded of the part that is shown', () => {
    const share = () => shareCovered(coveredOf(picture(), bench.state.passages[id]));
    expect(share()).toBeCloseTo(1_203 / 120_000, 4);
    bench.do(showPicture(id, { crop: { left: 120, top: 60, right: 160, bottom: 90 } }));
    expect(share()).toBe(0.5);
  });

  it('is made smaller with its areas on the same parts, none of them nothing, and what is cut stays cut', () => {
    bench.do(showPicture(id, { crop: { left: 90, top: 50, right: 200, bottom: 150 } }));
    const before = areas();
    const action = bench.do(resizePicture(id, media, 40, 30))!;
    expect(areas()[1]).toEqual({ shape: 'rectangle', x: 10, y: 6, width: 4, height: 3 });
    expect(areas().length).toBe(2);
    expect(picture().ground.shown?.crop).toEqual({ left: 9, top: 5, right: 20, bottom: 15 });
    expect(picture().ground.media).toEqual(media);
    bench.do(() => ({ change: invert(action.change), sentence: 'undid' }));
    expect(areas()).toEqual(before);
  });

  it('is the only thing that can be shown otherwise, and a page of a PDF is not made smaller', () => {
    const text = bench.addDocument('Letter', ['Dear Sir.']);
    expect(() => bench.do(showPicture(text.id, 'turn'))).toThrowError(/is no picture/);
    const page = { ...picture(), ground: { ...picture().ground, page: 3 } };
    bench.do(() => ({ change: [{ type: 'document', before: picture(), after: page }], sentence: 'made a page' }));
    expect(() => bench.do(resizePicture(id, media, 40, 30))).toThrowError(/page of a PDF/);
    expect(() => bench.do(resizePicture(text.id, media, 1, 1))).toThrowError(/is no picture/);
  });
});
