import { Bench } from '../testing/make';
import { newCodesByDocument } from './new-codes';

describe('new codes by document', () => {
  it('follow the order of coding, count each code once and leave uncoded documents out', () => {
    const bench = new Bench();
    const [first, second, third, blank] = ['A', 'B', 'C', 'D'].map((title) => bench.addDocument(title, ['Some words to code.']));
    const [x, y, z] = ['x', 'y', 'z'].map((name) => bench.addCode(name));
    bench.code(second!, 0, 4, x!, y!);
    bench.code(first!, 0, 4, y!);
    bench.code(third!, 0, 4, z!);
    bench.code(second!, 5, 10, z!);
    const ids = [first, second, third, blank].map((one) => one!.id);
    const titles = newCodesByDocument(bench.state.passages, ids).map((one) => [
      bench.state.tables.document[one.documentId]!.title,
      one.fresh,
      one.total,
    ]);
    // B carries z as well, and was coded before C
    expect(titles).toEqual([
      ['B', 3, 3],
      ['A', 0, 3],
      ['C', 0, 3],
    ]);
    expect(newCodesByDocument(bench.state.passages, [third!.id, first!.id]).map((one) => one.total)).toEqual([1, 2]);
    expect(newCodesByDocument({}, ids)).toEqual([]);
  });
});
